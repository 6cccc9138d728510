// Package undaris_test holds what is true of the house as a whole.
package undaris_test

import (
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestCoreImportsOnlyItselfAndTheStandardLibrary(t *testing.T) {
	out, err := exec.Command("go", "list", "-f", `{{.ImportPath}}:{{join .Imports " "}}`, "undaris/core/...").Output()
	require.NoError(t, err)
	packages := strings.Split(strings.TrimSpace(string(out)), "\n")
	assert.Greater(t, len(packages), 4)
	for _, line := range packages {
		name, imports, _ := strings.Cut(line, ":")
		for _, path := range strings.Fields(imports) {
			first, _, _ := strings.Cut(path, "/")
			standard := !strings.Contains(first, ".") && first != "undaris"
			assert.True(t, standard || strings.HasPrefix(path, "undaris/core/"), "%s imports %s", name, path)
			assert.NotContains(t, []string{"net/http", "database/sql", "os"}, path, name)
		}
	}
}

// What the core refuses it says by say.Errorf, so that it is never taken for a fault of the program.
func TestTheCoreRefusesInWords(t *testing.T) {
	files, err := filepath.Glob("core/*/*.go")
	require.NoError(t, err)
	require.Greater(t, len(files), 100)
	for _, file := range files {
		if strings.HasSuffix(file, "_test.go") || strings.HasPrefix(file, "core/say/") {
			continue
		}
		source, err := os.ReadFile(file)
		require.NoError(t, err)
		for _, other := range []string{"errors.New(", "fmt.Errorf("} {
			assert.NotContains(t, string(source), other, file)
		}
	}
}

// A component holds what others decide: its script stays short.
func TestNoComponentDecidesMuch(t *testing.T) {
	const most = 120 // lines
	var files []string
	require.NoError(t, filepath.WalkDir("web/src", func(path string, _ os.DirEntry, err error) error {
		if strings.HasSuffix(path, ".vue") {
			files = append(files, path)
		}
		return err
	}))
	require.Greater(t, len(files), 80)
	for _, file := range files {
		source, err := os.ReadFile(file)
		require.NoError(t, err)
		_, script, _ := strings.Cut(string(source), "<script setup")
		script, _, _ = strings.Cut(script, "</script>")
		assert.LessOrEqual(t, strings.Count(script, "\n"), most, file)
	}
}

// pageImports are the modules of the page, each with those of its own that it imports, types too.
func pageImports(t *testing.T) map[string][]string {
	t.Helper()
	from := regexp.MustCompile(`(?:from|import\(|import)\s*'(\.[^'?]*)`)
	imports := map[string][]string{}
	require.NoError(t, filepath.WalkDir("web/src", func(path string, _ os.DirEntry, err error) error {
		if err != nil || strings.Contains(path, ".test.") || !strings.HasSuffix(path, ".vue") && !strings.HasSuffix(path, ".ts") {
			return err
		}
		source, err := os.ReadFile(path)
		for _, found := range from.FindAllStringSubmatch(string(source), -1) {
			to := filepath.Join(filepath.Dir(path), found[1])
			for _, ending := range []string{"", ".ts", ".vue", ".d.ts"} {
				if at, err := os.Stat(to + ending); err == nil && !at.IsDir() {
					imports[path] = append(imports[path], to+ending)
					break
				}
			}
		}
		return err
	}))
	assert.Greater(t, len(imports), 150)
	return imports
}

// place is which one a module belongs to; nothing where to none.
func place(module string) string {
	below, ok := strings.CutPrefix(module, "web/src/places/")
	name, _, _ := strings.Cut(below, "/")
	if !ok {
		return ""
	}
	return name
}

// Drawings, documents and what the page remembers know no place: places are built of them. And no place knows another.
func TestPlacesAreOnTop(t *testing.T) {
	for module, all := range pageImports(t) {
		if module == "web/src/router.ts" || module == "web/src/App.vue" {
			continue
		}
		for _, to := range all {
			if of := place(to); of != "" {
				assert.Equal(t, place(module), of, "%s imports %s", module, to)
			}
		}
	}
}

// Arrows point one way: no module of the page leads back to itself.
func TestThePageHasNoCircles(t *testing.T) {
	imports := pageImports(t)
	const under, done = 1, 2
	state := map[string]int{}
	var walk func(module string, way []string)
	walk = func(module string, way []string) {
		switch way = append(way, module); state[module] {
		case done:
			return
		case under:
			assert.Fail(t, "a circle", strings.Join(way, " → "))
			return
		}
		state[module] = under
		for _, to := range imports[module] {
			walk(to, way)
		}
		state[module] = done
	}
	for module := range imports {
		walk(module, nil)
	}
}

// What each room may import of the others, in its tests too (but for the files that try several together).
func TestArrowsOfTheHouse(t *testing.T) {
	may := map[string][]string{
		"core": {"core"}, "formats": {"core", "formats"}, "store": {"core", "store"}, "demo": {"core", "store", "demo"},
		"life":    {"core", "store", "demo", "server"},
		"network": {"network"},
		"server":  {"core", "formats", "store", "network", "server"}, "cmd": {"core", "store", "network", "server", "demo", "life", "cmd"},
	}
	out, err := exec.Command("go", "list", "-f", `{{.ImportPath}}:{{join .Imports " "}}`, "./...").Output()
	require.NoError(t, err)
	room := func(path string) string {
		below, ok := strings.CutPrefix(path, "undaris/")
		name, _, _ := strings.Cut(below, "/")
		if !ok {
			return ""
		}
		return name
	}
	seen := map[string]bool{}
	for line := range strings.Lines(string(out)) {
		name, imports, _ := strings.Cut(strings.TrimSpace(line), ":")
		allowed, ok := may[room(name)]
		if !ok {
			continue
		}
		seen[room(name)] = true
		for _, path := range strings.Fields(imports) {
			if to := room(path); to != "" && to != "web" {
				assert.Contains(t, allowed, to, "%s imports %s", name, path)
			}
		}
	}
	assert.Len(t, seen, len(may))
}

// A number of the core that the page reckons with stands in one place there, which is made from the core; those that could
// be anything (12 frets, 50 percent) are told by their names.
func TestNoFactIsSpelledTwice(t *testing.T) {
	made, err := os.ReadFile("web/src/api/facts.ts")
	require.NoError(t, err)
	facts := regexp.MustCompile(`export const (\w+) = (\d+)`).FindAllStringSubmatch(string(made), -1)
	require.NotEmpty(t, facts)
	for module := range pageImports(t) {
		source, err := os.ReadFile(module)
		require.NoError(t, err)
		if module == "web/src/api/facts.ts" {
			continue
		}
		for _, fact := range facts {
			own := regexp.MustCompile(`(const|let) ` + fact[1] + `\b[^=\n]*= *\d`)
			assert.False(t, own.Match(source), "%s has a %s of its own", module, fact[1])
			if fact[1] == "quarter" { // which is like no other number
				ticks := regexp.MustCompile(`(^|[^\w.])` + fact[2] + `([^\w.]|$)`)
				assert.False(t, ticks.Match(source), "%s spells ticks", module)
			}
		}
	}
}
