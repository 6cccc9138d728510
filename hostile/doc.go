// Package hostile attacks the real program: kills it, hides requests in bodies,
// asks nonsense and extremes, brings files made to hurt, fills the disk. make
// hostile runs it; each test prints its figure and fails when that falls short.
package hostile
