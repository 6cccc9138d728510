// Command mutants measures whether the tests bite: it puts small faults into the program, one at
// a time, and counts those that no test notices.
//
//	make mutants                   # 200 of them, by seed 1
//	make mutants SEED=7 FAULTS=40  # others
//
// Faults are drawn over all places where one can be: a comparison turned round or shifted, a sum
// for a difference, “and” for “or”, a number that is one more, a condition negated, a statement
// left out. Of Go each is compiled in with the toolchain's overlay, so the tree stays as it is; of
// the page it is put into a copy. The tests of the package are asked first, then those of
// the packages that import it; of the page those that reach the file. A fault that changes nothing
// anybody could notice is listed in equivalent.txt, with the reason.
package main
