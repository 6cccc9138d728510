package main

import (
	"archive/tar"
	"archive/zip"
	"bytes"
	"compress/gzip"
	"crypto/sha256"
	"encoding/hex"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/server"
)

// Every archive holds the program, which may be run, with its licences and how to use it, in a
// directory of its own; its sum is that of its bytes, and it is the same each time.
func TestArchivesHoldWhatBelongsToThem(t *testing.T) {
	t.Chdir("..")
	dir := t.TempDir()
	program := filepath.Join(dir, "program")
	require.NoError(t, os.WriteFile(program, bytes.Repeat([]byte("program "), 1000), 0o755))
	for _, target := range targets {
		path, sum, err := target.pack(dir, program)
		require.NoError(t, err, target)
		data, err := os.ReadFile(path)
		require.NoError(t, err)
		hash := sha256.Sum256(data)
		assert.Equal(t, hex.EncodeToString(hash[:]), sum, target)
		again, other, err := target.pack(t.TempDir(), program)
		require.NoError(t, err)
		assert.Equal(t, []string{filepath.Base(path), sum}, []string{filepath.Base(again), other}, target)

		files := map[string]string{}
		modes := map[string]os.FileMode{}
		if target.system == "windows" {
			require.True(t, strings.HasSuffix(path, ".zip"), path)
			r, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
			require.NoError(t, err)
			for _, f := range r.File {
				in, err := f.Open()
				require.NoError(t, err)
				text, err := io.ReadAll(in)
				require.NoError(t, err)
				files[f.Name], modes[f.Name] = string(text), f.Mode()
			}
		} else {
			require.True(t, strings.HasSuffix(path, ".tar.gz"), path)
			unpacked, err := gzip.NewReader(bytes.NewReader(data))
			require.NoError(t, err)
			for r := tar.NewReader(unpacked); ; {
				h, err := r.Next()
				if err == io.EOF {
					break
				}
				require.NoError(t, err)
				text, err := io.ReadAll(r)
				require.NoError(t, err)
				files[h.Name], modes[h.Name] = string(text), h.FileInfo().Mode()
			}
		}
		title := "undaris-" + server.Version + "-" + target.name() + "/"
		run := title + "undaris"
		if target.system == "windows" {
			run += ".exe"
		}
		assert.Contains(t, files[run], "program ", target)
		assert.NotZero(t, modes[run]&0o100, "it may be run: %v", target)
		for _, name := range []string{"README.md", "LICENSE", "NOTICE"} {
			want, err := os.ReadFile(name)
			require.NoError(t, err)
			assert.Equal(t, string(want), files[title+name], target)
			assert.Zero(t, modes[title+name]&0o111, name)
		}
		assert.Equal(t, target.system == "linux", files[title+"undaris.desktop"] != "", target)
		for name := range files {
			assert.True(t, strings.HasPrefix(name, title), name)
		}
	}
}

func TestWithoutPagesNothingIsReleased(t *testing.T) {
	t.Chdir(t.TempDir())
	assert.ErrorContains(t, release("out", nil), "the pages were not built")
	assert.NoDirExists(t, "out")
}
