package main

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// pageFaults lists every fault that the page can have.
func pageFaults(root string) (all []fault, err error) {
	out, err := exec.Command("node", filepath.Join(root, "mutants", "faults.mjs"), root).Output()
	if err != nil {
		return nil, fmt.Errorf("the page's files cannot be read: %w", err)
	}
	return all, json.Unmarshal(out, &all)
}

// page is a copy of the front end, which faults are put into.
type page struct {
	dir     string
	program string // which answers it
}

func copyPage(root string) (*page, error) {
	dir, err := os.MkdirTemp("", "mutants-page-")
	if err != nil {
		return nil, err
	}
	// Everything but what is installed, which is linked to.
	c := exec.Command("sh", "-c", `cd "$1" && tar cf - --exclude=web/node_modules --exclude=web/dist web NOTICE LICENSE core store server formats demo | tar xf - -C "$2" && ln -s "$1/web/node_modules" "$2/web/node_modules"`, "sh", root, dir)
	if out, err := c.CombinedOutput(); err != nil {
		return nil, fmt.Errorf("the page cannot be copied: %w: %s", err, out)
	}
	return &page{dir, filepath.Join(root, "bin", "undaris")}, nil
}

func (p *page) remove() { os.RemoveAll(p.dir) }

// sound says that the tests pass without any fault: else every fault would be told as noticed.
func (p *page) sound(ctx context.Context) error {
	out, err := p.vitest(ctx, "run").CombinedOutput()
	if err != nil {
		return fmt.Errorf("the page's tests fail without a fault: %w\n%s", err, out)
	}
	return nil
}

func (p *page) vitest(ctx context.Context, args ...string) *exec.Cmd {
	c := exec.CommandContext(ctx, "npx", append([]string{"vitest"}, args...)...)
	c.Dir = filepath.Join(p.dir, "web")
	c.Env = append(os.Environ(), "UNDARIS="+p.program)
	c.WaitDelay = time.Second
	return c
}

// try puts a fault in and asks the tests that reach its file.
func (p *page) try(ctx context.Context, f fault) (result, error) {
	path := filepath.Join(p.dir, f.File)
	source, err := os.ReadFile(path)
	if err != nil {
		return 0, err
	}
	if err := os.WriteFile(path, slices.Concat(source[:f.From], []byte(f.Text), source[f.To:]), 0o600); err != nil {
		return 0, err
	}
	defer os.WriteFile(path, source, 0o600)
	ctx, cancel := context.WithTimeout(ctx, 3*time.Minute)
	defer cancel()
	file, err := filepath.Rel("web", f.File)
	if err != nil {
		return 0, err
	}
	for _, project := range []string{"plain", "page"} { // the quick ones first
		out, err := p.vitest(ctx, "related", "--run", "--project="+project, "--bail=1", "--passWithNoTests", file).CombinedOutput()
		if strings.Contains(string(out), "SyntaxError") && strings.Contains(string(out), "Transform failed") {
			return unbuilt, nil
		}
		if err != nil {
			return own, nil
		}
	}
	return survived, nil
}
