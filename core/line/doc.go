// Package line checks and writes lines over a chart.
//
// Check reads a line note by note and change by change: what each note is over
// its chord and why it may stand there, whether each change is landed and when,
// which phrases come back. Write finds the cheapest line that keeps what was
// asked: chord tones on strong beats, a target on every change, smooth steps
// between; the cost is stated and its minimum exact.
package line
