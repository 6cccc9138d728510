// Package undaris_test holds what is true of the house as a whole.
package undaris_test

import (
	"os/exec"
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
