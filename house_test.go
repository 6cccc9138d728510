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

// Drawings, documents and what the page remembers know no place: places are built of them.
func TestPlacesAreOnTop(t *testing.T) {
	top := []string{"web/src/places/", "web/src/router.ts", "web/src/App.vue"}
	above := regexp.MustCompile(`from '[./]+/places/`)
	require.NoError(t, filepath.WalkDir("web/src", func(path string, _ os.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".vue") && !strings.HasSuffix(path, ".ts") {
			return err
		}
		for _, built := range top {
			if strings.HasPrefix(path, built) {
				return nil
			}
		}
		source, err := os.ReadFile(path)
		assert.False(t, above.Match(source), "%s knows a place", path)
		return err
	}))
}
