// Package practice holds the ways to practise over a band: what is expected in each
// pass, and what counts. What was played freely is written down as a line and
// judged as written lines are, by the same rules.
package practice
