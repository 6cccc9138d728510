package store

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAnyDirectoryHoldsData(t *testing.T) {
	for _, name := range []string{"plain", "a b", "a#b", "50%", "a%20b", "what?", "x&y=z", "Größe", "it's", `back\slash`, "a;b", "+", "file:x"} {
		dir := filepath.Join(t.TempDir(), name)
		s, err := Open(dir)
		require.NoError(t, err, name)
		require.NoError(t, s.CreateChart(&Chart{Title: "Kept", Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 |"}), name)
		s.Close()
		require.FileExists(t, filepath.Join(dir, FileName), name)
		again, err := Open(dir)
		require.NoError(t, err, name)
		c, err := again.Chart(1)
		require.NoError(t, err, name)
		assert.Equal(t, "Kept", c.Title)
		again.Close()
		left, err := os.ReadDir(filepath.Dir(dir))
		require.NoError(t, err)
		assert.Len(t, left, 1, "nothing beside %s", name)
	}
}

func TestTheAddressOfAFile(t *testing.T) {
	for path, want := range map[string]string{
		"/home/reed/.local/share/undaris/undaris.db":   "file:/home/reed/.local/share/undaris/undaris.db?mode=ro",
		`C:\Users\Reed Sands\AppData\Local\undaris.db`: "file:/C:/Users/Reed%20Sands/AppData/Local/undaris.db?mode=ro",
		"/a b#c%20d?e/u.db":                            "file:/a%20b%23c%2520d%3Fe/u.db?mode=ro",
	} {
		assert.Equal(t, want, source(path, "mode=ro"), path)
	}
}
