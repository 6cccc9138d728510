package main

import (
	"bufio"
	"cmp"
	"context"
	"flag"
	"fmt"
	"io/fs"
	"maps"
	"math/rand/v2"
	"os"
	"os/signal"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"sync"
	"time"
)

// groups are what is counted, with their share of the faults in percent, and how many of them may
// survive.
var groups = []struct {
	name     string
	share    int
	survives float64
	of       func(file string) bool
}{
	{"core", 40, 0.15, func(f string) bool {
		return (strings.HasPrefix(f, "core/") || strings.HasPrefix(f, "formats/")) && !strings.Contains(f, "/scoretest/")
	}},
	{"server", 25, 0.25, func(f string) bool { return strings.HasPrefix(f, "server/") || strings.HasPrefix(f, "store/") }},
	{"page", 35, 0.25, func(f string) bool { return strings.HasPrefix(f, "web/src/") }},
}

// mostEquivalent is the share of faults that may be said to change nothing.
const mostEquivalent = 0.05

func main() {
	seed := flag.Uint64("seed", 1, "other seeds draw other faults")
	count := flag.Int("faults", 200, "how many")
	only := flag.String("only", "", "a beginning of files, such as core/edit")
	flag.Parse()
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt)
	defer stop()
	if err := measure(ctx, *seed, *count, *only); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

// measure draws faults, tries them, and tells what survived. The error says which figure is not held.
func measure(ctx context.Context, seed uint64, count int, only string) error {
	root, err := filepath.Abs(".")
	if err != nil {
		return err
	}
	all, packages, err := everyFault(root)
	if err != nil {
		return err
	}
	same, err := equivalents(filepath.Join(root, "mutants", "equivalent.txt"))
	if err != nil {
		return err
	}
	draw := rand.New(rand.NewPCG(seed, 30))
	began := time.Now()
	var failed []string
	equal, tried := 0, 0
	for _, g := range groups {
		some := slices.DeleteFunc(slices.Clone(all), func(f fault) bool { return f.Group != g.name || !strings.HasPrefix(f.File, only) })
		draw.Shuffle(len(some), func(i, j int) { some[i], some[j] = some[j], some[i] })
		wanted := min(count*g.share/100, len(some))
		if only != "" {
			wanted = min(count, len(some))
		}
		if g.name == "page" && wanted > 0 {
			if err := soundPage(ctx, root); err != nil {
				return err
			}
		}
		told := try(ctx, root, packages, some, wanted, same)
		if ctx.Err() != nil {
			return ctx.Err()
		}
		equal += told.equal
		tried += told.tried()
		if told.tried() == 0 {
			continue
		}
		told.print(g.name)
		if share := float64(told.count[survived]) / float64(told.tried()); share > g.survives {
			failed = append(failed, fmt.Sprintf("%s: %.0f %% survived, where %.0f %% may", g.name, 100*share, 100*g.survives))
		}
	}
	fmt.Printf("%d faults in %s; %d more are told to change nothing\n", tried, time.Since(began).Round(time.Second), equal)
	if float64(equal) > mostEquivalent*float64(tried+equal) {
		failed = append(failed, fmt.Sprintf("%d of %d are told to change nothing, which is too many to be believed", equal, tried+equal))
	}
	if len(failed) > 0 {
		return fmt.Errorf("%s", strings.Join(failed, "; "))
	}
	return nil
}

func soundPage(ctx context.Context, root string) error {
	p, err := copyPage(root)
	if err != nil {
		return err
	}
	defer p.remove()
	return p.sound(ctx)
}

func everyFault(root string) (all []fault, packages goPackages, err error) {
	if packages, err = readGoPackages(root); err != nil {
		return nil, packages, err
	}
	for _, path := range slices.Sorted(maps.Keys(packages.dirs)) {
		err := filepath.WalkDir(filepath.Join(root, packages.dirs[path]), func(file string, d fs.DirEntry, err error) error {
			if err != nil {
				return err
			}
			if d.IsDir() {
				if file != filepath.Join(root, packages.dirs[path]) {
					return fs.SkipDir
				}
				return nil
			}
			if !strings.HasSuffix(file, ".go") || strings.HasSuffix(file, "_test.go") {
				return nil
			}
			name, err := filepath.Rel(root, file)
			if err != nil {
				return err
			}
			found, err := goFaults(root, name)
			for _, f := range found {
				f.Package = path
				all = append(all, f)
			}
			return err
		})
		if err != nil {
			return nil, packages, err
		}
	}
	ofPage, err := pageFaults(root)
	if err != nil {
		return nil, packages, err
	}
	for _, f := range ofPage {
		f.Package = filepath.Dir(f.File)
		all = append(all, f)
	}
	for i := range all {
		for _, g := range groups {
			if g.of(all[i].File) {
				all[i].Group = g.name
			}
		}
	}
	return all, packages, nil
}

// equivalents are the faults that change nothing that anybody could notice: a line for each, its
// name, two spaces and a #, and why.
func equivalents(path string) (map[string]bool, error) {
	f, err := os.Open(path)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	list := map[string]bool{}
	for lines := bufio.NewScanner(f); lines.Scan(); {
		name, why, ok := strings.Cut(lines.Text(), "  # ")
		if !ok && strings.TrimSpace(lines.Text()) != "" {
			return nil, fmt.Errorf("%s: %q does not say why", path, lines.Text())
		}
		if ok && len(why) > 5 {
			list[name] = true
		}
	}
	return list, nil
}

// told is what became of the faults of a group.
type told struct {
	count  map[result]int
	by     map[string]map[result]int
	lived  []fault
	equal  int
	lasted time.Duration
}

func (t told) tried() int { return t.count[own] + t.count[later] + t.count[survived] }

func (t told) print(name string) {
	fmt.Printf("\n%s: %d faults, %d noticed by the tests of their package, %d by those of others, %d survived (%.0f %%), in %s\n",
		name, t.tried(), t.count[own], t.count[later], t.count[survived], 100*float64(t.count[survived])/float64(t.tried()), t.lasted.Round(time.Second))
	for _, of := range slices.Sorted(maps.Keys(t.by)) {
		c := t.by[of]
		fmt.Printf("  %-44s %3d of %3d survived\n", of, c[survived], c[own]+c[later]+c[survived])
	}
	slices.SortFunc(t.lived, func(a, b fault) int { return cmp.Or(cmp.Compare(a.File, b.File), a.Line-b.Line) })
	for _, f := range t.lived {
		fmt.Printf("    %s:%d  %s\n", f.File, f.Line, f.name())
	}
}

// try tries faults, one for each core of the machine at a time, until so many were faults.
func try(ctx context.Context, root string, packages goPackages, some []fault, wanted int, same map[string]bool) told {
	t := told{count: map[result]int{}, by: map[string]map[result]int{}}
	began := time.Now()
	var mu sync.Mutex
	var all sync.WaitGroup
	next := 0
	take := func() (fault, bool) {
		mu.Lock()
		defer mu.Unlock()
		for t.tried() < wanted && next < len(some) {
			f := some[next]
			next++
			if same[f.name()] {
				t.equal++
				continue
			}
			return f, true
		}
		return fault{}, false
	}
	for range runtime.NumCPU() {
		all.Go(func() {
			var copied *page
			defer func() {
				if copied != nil {
					copied.remove()
				}
			}()
			for {
				f, ok := take()
				if !ok || ctx.Err() != nil {
					return
				}
				var r result
				var err error
				if f.Group == "page" {
					if copied == nil {
						if copied, err = copyPage(root); err != nil {
							fmt.Fprintln(os.Stderr, err)
							return
						}
					}
					r, err = copied.try(ctx, f)
				} else {
					r, err = tryGo(ctx, root, packages, f)
				}
				if err != nil {
					fmt.Fprintln(os.Stderr, f.name(), err)
					continue
				}
				mu.Lock()
				if t.count[r]++; r != unbuilt {
					if t.by[f.Package] == nil {
						t.by[f.Package] = map[result]int{}
					}
					t.by[f.Package][r]++
				}
				if r == survived {
					t.lived = append(t.lived, f)
					fmt.Fprintf(os.Stderr, "survived: %s:%d  %s\n", f.File, f.Line, f.name())
				}
				mu.Unlock()
			}
		})
	}
	all.Wait()
	t.lasted = time.Since(began)
	return t
}
