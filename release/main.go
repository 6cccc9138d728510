// Command release builds the program for every system, from one machine, and packs each with what
// belongs to it; SHA256SUMS tells them apart from what was changed on the way.
//
//	go run ./release            # all of them, into bin/release
//	go run ./release linux      # those whose names have this in them
package main

import (
	"archive/tar"
	"archive/zip"
	"compress/gzip"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"undaris/server"
)

// target is a system that is built for.
type target struct{ system, machine string }

func (t target) name() string { return t.system + "-" + t.machine }

// targets are all of them, as Go names them.
var targets = []target{{"linux", "amd64"}, {"linux", "arm64"}, {"linux", "arm"}, {"darwin", "arm64"}, {"darwin", "amd64"}, {"windows", "amd64"}}

// largest is how large a program may be, and packed, in bytes. Two MiB of it are for recordings: what decodes them, what
// stretches them, and the model that hears them.
const largest, largestPacked = 38 << 20, 20 << 20

// item is a file of an archive.
type item struct {
	from, name string
	runs       bool
}

// contents are what an archive holds.
func (t target) contents(program string) []item {
	name := "undaris"
	if t.system == "windows" {
		name = "undaris.exe"
	}
	list := []item{{program, name, true}, {"README.md", "README.md", false}, {"LICENSE", "LICENSE", false}, {"NOTICE", "NOTICE", false}}
	if t.system == "linux" {
		list = append(list, item{"release/linux/undaris.desktop", "undaris.desktop", false}, item{"release/linux/undaris.service", "undaris.service", false})
	}
	return list
}

func main() {
	if err := release(filepath.Join("bin", "release"), os.Args[1:]); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func release(dir string, wanted []string) error {
	if _, err := os.Stat(filepath.Join("web", "dist", "index.html")); err != nil {
		return errors.New("the pages were not built; make release does that first")
	}
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return err
	}
	var sums strings.Builder
	for _, t := range targets {
		if len(wanted) > 0 && !slices.ContainsFunc(wanted, func(w string) bool { return strings.Contains(t.name(), w) }) {
			continue
		}
		began := time.Now()
		program := filepath.Join(dir, "undaris-"+t.name())
		build := exec.Command("go", "build", "-tags", "nomsgpack", "-trimpath", "-ldflags", "-s -w", "-o", program, "./cmd/undaris")
		build.Env = append(os.Environ(), "CGO_ENABLED=0", "GOOS="+t.system, "GOARCH="+t.machine)
		if out, err := build.CombinedOutput(); err != nil {
			return fmt.Errorf("%s: %w\n%s", t.name(), err, out)
		}
		at, err := os.Stat(program)
		if err != nil {
			return err
		}
		packed, sum, err := t.pack(dir, program)
		if err != nil {
			return fmt.Errorf("%s: %w", t.name(), err)
		}
		whole, err := os.Stat(packed)
		if err != nil {
			return err
		}
		if at.Size() > largest || whole.Size() > largestPacked {
			return fmt.Errorf("%s has %d bytes, packed %d, which is more than it may", t.name(), at.Size(), whole.Size())
		}
		fmt.Fprintf(&sums, "%s  %s\n", sum, filepath.Base(packed))
		fmt.Printf("%-46s %5.1f MB, packed %5.1f MB, in %s\n", filepath.Base(packed), float64(at.Size())/1e6, float64(whole.Size())/1e6, time.Since(began).Round(time.Second))
		if err := os.Remove(program); err != nil {
			return err
		}
	}
	return os.WriteFile(filepath.Join(dir, "SHA256SUMS"), []byte(sums.String()), 0o644)
}

// pack writes an archive with its own directory in it: a zip for Windows, else a tar.
func (t target) pack(dir, program string) (path, sum string, err error) {
	title := fmt.Sprintf("undaris-%s-%s", server.Version, t.name())
	ending, write := ".tar.gz", tarred
	if t.system == "windows" {
		ending, write = ".zip", zipped
	}
	path = filepath.Join(dir, title+ending)
	f, err := os.Create(path)
	if err != nil {
		return "", "", err
	}
	defer f.Close()
	hash := sha256.New()
	if err := write(io.MultiWriter(f, hash), title, t.contents(program)); err != nil {
		return "", "", err
	}
	return path, hex.EncodeToString(hash.Sum(nil)), f.Close()
}

func mode(i item) os.FileMode {
	if i.runs {
		return 0o755
	}
	return 0o644
}

func tarred(to io.Writer, title string, list []item) error {
	packed, err := gzip.NewWriterLevel(to, gzip.BestCompression)
	if err != nil {
		return err
	}
	w := tar.NewWriter(packed)
	for _, i := range list {
		data, err := os.ReadFile(i.from)
		if err != nil {
			return err
		}
		if err := w.WriteHeader(&tar.Header{Name: title + "/" + i.name, Mode: int64(mode(i)), Size: int64(len(data)), Format: tar.FormatPAX}); err != nil {
			return err
		}
		if _, err := w.Write(data); err != nil {
			return err
		}
	}
	return errors.Join(w.Close(), packed.Close())
}

func zipped(to io.Writer, title string, list []item) error {
	w := zip.NewWriter(to)
	for _, i := range list {
		data, err := os.ReadFile(i.from)
		if err != nil {
			return err
		}
		head := &zip.FileHeader{Name: title + "/" + i.name, Method: zip.Deflate}
		head.SetMode(mode(i))
		entry, err := w.CreateHeader(head)
		if err != nil {
			return err
		}
		if _, err := entry.Write(data); err != nil {
			return err
		}
	}
	return w.Close()
}
