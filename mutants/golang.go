package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"
)

// fault is one small change of a file.
type fault struct {
	Group, Package string // where it is counted
	File           string // from the root
	Line           int
	From, To       int // bytes of the file
	Text           string
	Was            string
	Func           string // that it is in
}

// name tells a fault so that it stays the same while its lines move.
func (f fault) name() string {
	return fmt.Sprintf("%s %s: %s -> %s", f.File, f.Func, squeezed(f.Was), squeezed(f.Text))
}

func squeezed(text string) string {
	if text == "" {
		return "nothing"
	}
	return strings.Join(strings.Fields(text), " ")
}

// turned are operators and what takes their place.
var turned = map[token.Token]string{
	token.LSS: "<=", token.LEQ: "<", token.GTR: ">=", token.GEQ: ">", token.EQL: "!=", token.NEQ: "==",
	token.LAND: "||", token.LOR: "&&", token.ADD: "-", token.SUB: "+", token.MUL: "/", token.QUO: "*", token.REM: "/",
}

// goFaults lists every fault that a Go file can have.
func goFaults(root, file string) (all []fault, err error) {
	source, err := os.ReadFile(filepath.Join(root, file))
	if err != nil {
		return nil, err
	}
	set := token.NewFileSet()
	tree, err := parser.ParseFile(set, file, source, parser.SkipObjectResolution)
	if err != nil {
		return nil, err
	}
	in := "-"
	add := func(from, to token.Pos, text string) {
		a, b := set.Position(from), set.Position(to)
		all = append(all, fault{File: file, Line: a.Line, From: a.Offset, To: b.Offset, Text: text, Was: string(source[a.Offset:b.Offset]), Func: in})
	}
	said := func(n ast.Node) bool { // sentences may be put together with +
		found := false
		ast.Inspect(n, func(n ast.Node) bool {
			if l, ok := n.(*ast.BasicLit); ok && l.Kind == token.STRING {
				found = true
			}
			return !found
		})
		return found
	}
	for _, d := range tree.Decls {
		f, ok := d.(*ast.FuncDecl)
		if !ok || f.Body == nil {
			continue
		}
		in = f.Name.Name
		ast.Inspect(f.Body, func(n ast.Node) bool {
			switch n := n.(type) {
			case *ast.BinaryExpr:
				if text, ok := turned[n.Op]; ok && !(n.Op == token.ADD && said(n)) {
					add(n.OpPos, n.OpPos+token.Pos(len(n.Op.String())), text)
				}
			case *ast.BasicLit:
				if n.Kind == token.INT {
					if v, err := strconv.ParseInt(n.Value, 0, 64); err == nil {
						add(n.Pos(), n.End(), strconv.FormatInt(v+1, 10))
					}
				}
			case *ast.IfStmt:
				add(n.Cond.Pos(), n.Cond.End(), "!("+string(source[set.Position(n.Cond.Pos()).Offset:set.Position(n.Cond.End()).Offset])+")")
			case *ast.IncDecStmt:
				add(n.TokPos, n.TokPos+2, map[token.Token]string{token.INC: "--", token.DEC: "++"}[n.Tok])
			case *ast.ExprStmt:
				if _, call := n.X.(*ast.CallExpr); call {
					add(n.Pos(), n.End(), "")
				}
			case *ast.AssignStmt:
				if n.Tok == token.ADD_ASSIGN && !said(n) {
					add(n.TokPos, n.TokPos+2, "-=")
				} else if n.Tok == token.SUB_ASSIGN {
					add(n.TokPos, n.TokPos+2, "+=")
				}
			case *ast.BranchStmt:
				if n.Label == nil && n.Tok == token.CONTINUE {
					add(n.Pos(), n.End(), "break")
				}
			case *ast.Ident:
				if n.Name == "true" || n.Name == "false" {
					add(n.Pos(), n.End(), strconv.FormatBool(n.Name == "false"))
				}
			}
			return true
		})
	}
	return all, nil
}

// goPackages are the program's own, each with those that import it, also in tests.
type goPackages struct {
	dirs    map[string]string   // by path, from the root
	readers map[string][]string // by path: who imports it itself, or in its tests
}

func readGoPackages(root string) (p goPackages, err error) {
	list := exec.Command("go", "list", "-json=ImportPath,Dir,TestImports,XTestImports,Imports", "./...")
	list.Dir = root
	data, err := list.Output()
	if err != nil {
		return p, err
	}
	type described struct {
		ImportPath, Dir                    string
		Imports, TestImports, XTestImports []string
	}
	p = goPackages{map[string]string{}, map[string][]string{}}
	var all []described
	for d := json.NewDecoder(bytes.NewReader(data)); d.More(); {
		var one described
		if err := d.Decode(&one); err != nil {
			return p, err
		}
		dir, err := filepath.Rel(root, one.Dir)
		if err != nil {
			return p, err
		}
		p.dirs[one.ImportPath] = dir
		all = append(all, one)
	}
	for of := range p.dirs {
		var near []string
		for _, one := range all {
			if strings.HasPrefix(one.ImportPath, "undaris/e2e") || strings.HasPrefix(one.ImportPath, "undaris/hostile") || strings.HasPrefix(one.ImportPath, "undaris/mutants") || one.ImportPath == of {
				continue
			}
			if slices.Contains(slices.Concat(one.Imports, one.TestImports, one.XTestImports), of) {
				near = append(near, one.ImportPath)
			}
		}
		p.readers[of] = near
	}
	return p, nil
}

// songbook is where what the core makes is kept whole.
const songbook = "undaris/songbook"

// result is what became of a fault.
type result int

const (
	unbuilt  result = iota // it does not compile: no fault
	own                    // noticed by the tests of its package
	later                  // noticed by those of others
	survived               // noticed by none
)

// tryGo compiles a fault in and asks the tests.
func tryGo(ctx context.Context, root string, p goPackages, f fault) (result, error) {
	dir, err := os.MkdirTemp("", "mutants-")
	if err != nil {
		return 0, err
	}
	defer os.RemoveAll(dir)
	source, err := os.ReadFile(filepath.Join(root, f.File))
	if err != nil {
		return 0, err
	}
	changed := filepath.Join(dir, "changed.go")
	if err := os.WriteFile(changed, slices.Concat(source[:f.From], []byte(f.Text), source[f.To:]), 0o600); err != nil {
		return 0, err
	}
	overlay, err := json.Marshal(map[string]any{"Replace": map[string]string{filepath.Join(root, f.File): changed}})
	if err != nil {
		return 0, err
	}
	at := filepath.Join(dir, "overlay.json")
	if err := os.WriteFile(at, overlay, 0o600); err != nil {
		return 0, err
	}
	// One that loops for ever is noticed: the tests do not end.
	run := func(packages ...string) (ok, built bool) {
		ctx, cancel := context.WithTimeout(ctx, 4*time.Minute)
		defer cancel()
		c := exec.CommandContext(ctx, "go", append([]string{"test", "-overlay", at, "-count=1", "-failfast", "-vet=off", "-timeout=180s", "-p=1"}, packages...)...)
		c.Dir = root
		c.WaitDelay = time.Second
		out, err := c.CombinedOutput()
		text := string(out)
		return err == nil, !strings.Contains(text, "[build failed]") && !strings.Contains(text, "[setup failed]")
	}
	ok, built := run(f.Package)
	switch {
	case !built:
		return unbuilt, nil
	case !ok:
		return own, nil
	}
	// The songbook first, which is quick and hears most of what is made otherwise.
	readers := p.readers[f.Package]
	if i := slices.Index(readers, songbook); i >= 0 {
		if ok, _ := run(songbook); !ok {
			return later, nil
		}
		readers = slices.Delete(slices.Clone(readers), i, i+1)
	}
	if len(readers) > 0 {
		if ok, _ := run(readers...); !ok {
			return later, nil
		}
	}
	return survived, nil
}
