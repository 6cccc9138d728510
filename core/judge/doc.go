// Package judge says how a take went: what was heard is set against what was to be
// played, note by note, at the least stated cost. What was not heard is told apart
// from what was wrong.
package judge
