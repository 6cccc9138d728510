// Package ear makes notes of what an ear noticed: of strokes, of pitches that came
// to rest, and of what a stroke brought that did not sound before. What was to be
// played helps where the sound alone does not decide, and never more than that.
package ear
