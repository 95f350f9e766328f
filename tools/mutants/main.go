// Mutants changes one thing in the core at a time and runs the tests that should
// notice: a comparison, an operator, a constant, a negation, or a call that is left
// out. The sites are drawn by a seed. What no test notices is printed: either nothing
// depends on it, or a test is missing.
//
//	go -C tools run ./mutants -root .. -seed 1 -sites 60
//
// The tests that should notice are those of the package, and, where they all pass, those
// of the packages of the core that are built on it.
package main

import (
	"bytes"
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"sort"
	"strconv"
	"strings"
	"sync"
	"time"
)

// site is one change: the text between two offsets of a file is replaced.
type site struct {
	file     string // from the root
	line     int
	from, to int
	was, is  string
	what     string
}

func main() {
	root := flag.String("root", "..", "the folder with core in it")
	seed := flag.Uint64("seed", 1, "of the draw")
	count := flag.Int("sites", 60, "how many to change, one at a time")
	least := flag.Float64("least", .8, "share that must be noticed, or it fails")
	only := flag.String("only", "", "only packages whose path has this in it")
	flag.Parse()
	if err := run(*root, *seed, *count, *least, *only); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(root string, seed uint64, count int, least float64, only string) error {
	root, err := filepath.Abs(root)
	if err != nil {
		return err
	}
	sites, err := collect(root, only)
	if err != nil {
		return err
	}
	users, err := dependents(root)
	if err != nil {
		return err
	}
	rng := rand.New(rand.NewPCG(seed, 0x6d757461))
	rng.Shuffle(len(sites), func(i, j int) { sites[i], sites[j] = sites[j], sites[i] })
	fmt.Printf("%d sites in the core, seed %d\n", len(sites), seed)

	var mu sync.Mutex
	next, done, killed := 0, 0, 0
	var survivors []site
	work := func() {
		for {
			mu.Lock()
			if done >= count || next >= len(sites) {
				mu.Unlock()
				return
			}
			s := sites[next]
			next++
			done++
			mu.Unlock()
			result := try(root, s, users)
			mu.Lock()
			switch result {
			case uncompiled: // draw another in its place
				done--
			case noticed:
				killed++
			case survived:
				survivors = append(survivors, s)
			}
			if result != uncompiled {
				fmt.Printf("%-8s %s:%d %s: %s → %s\n", result, s.file, s.line, s.what, s.was, s.is)
			}
			mu.Unlock()
		}
	}
	var wait sync.WaitGroup
	for range 2 {
		wait.Go(work)
	}
	wait.Wait()
	total := killed + len(survivors)
	if total == 0 {
		return fmt.Errorf("nothing was changed")
	}
	share := float64(killed) / float64(total)
	sort.Slice(survivors, func(i, j int) bool { return survivors[i].file < survivors[j].file })
	fmt.Printf("\nseed %d: %d of %d noticed, %.0f %%\n", seed, killed, total, share*100)
	for _, s := range survivors {
		fmt.Printf("survived %s:%d %s: %s → %s\n", s.file, s.line, s.what, s.was, s.is)
	}
	if share < least {
		return fmt.Errorf("fewer than %.0f %% were noticed", least*100)
	}
	return nil
}

// collect finds every site of the core that is not a test.
func collect(root, only string) (out []site, err error) {
	err = filepath.WalkDir(filepath.Join(root, "core"), func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") ||
			strings.Contains(path, "plantest") || !strings.Contains(path, only) {
			return err
		}
		src, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		name, err := filepath.Rel(root, path)
		if err != nil {
			return err
		}
		out = append(out, sitesOf(filepath.ToSlash(name), src)...)
		return nil
	})
	return out, err
}

var comparisons = map[token.Token]string{
	token.LSS: "<=", token.LEQ: "<", token.GTR: ">=", token.GEQ: ">", token.EQL: "!=", token.NEQ: "==",
}

var arithmetic = map[token.Token]string{
	token.ADD: "-", token.SUB: "+", token.MUL: "/", token.QUO: "*", token.LAND: "||", token.LOR: "&&",
}

func sitesOf(name string, src []byte) (out []site) {
	files := token.NewFileSet()
	f, err := parser.ParseFile(files, name, src, 0)
	if err != nil {
		return nil
	}
	add := func(from, to token.Pos, is, what string) {
		a, b := files.Position(from), files.Position(to)
		out = append(out, site{file: name, line: a.Line, from: a.Offset, to: b.Offset, was: string(src[a.Offset:b.Offset]), is: is, what: what})
	}
	ast.Inspect(f, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.GenDecl:
			return n.Tok != token.IMPORT
		case *ast.BinaryExpr:
			end := n.OpPos + token.Pos(len(n.Op.String()))
			if is, ok := comparisons[n.Op]; ok {
				add(n.OpPos, end, is, "comparison")
			} else if is, ok := arithmetic[n.Op]; ok {
				add(n.OpPos, end, is, "operator")
			}
		case *ast.UnaryExpr:
			if n.Op == token.NOT || n.Op == token.SUB {
				add(n.OpPos, n.OpPos+1, "", "negation")
			}
		case *ast.IfStmt:
			add(n.Cond.Pos(), n.Cond.End(), "!("+string(src[files.Position(n.Cond.Pos()).Offset:files.Position(n.Cond.End()).Offset])+")", "negation")
		case *ast.BasicLit:
			if n.Kind == token.INT || n.Kind == token.FLOAT {
				add(n.Pos(), n.End(), another(n.Value), "constant")
			}
		case *ast.ExprStmt:
			if _, ok := n.X.(*ast.CallExpr); ok {
				add(n.Pos(), n.End(), "", "call left out")
			}
		}
		return true
	})
	return out
}

// another is a constant that is not this one: twice as large, or one for nought.
func another(text string) string {
	v, err := strconv.ParseFloat(strings.ReplaceAll(text, "_", ""), 64)
	switch {
	case err != nil:
		return text + "+1" // of another base
	case v == 0:
		return "1"
	case strings.ContainsAny(text, ".e"):
		return strconv.FormatFloat(2*v, 'g', -1, 64)
	}
	return strconv.FormatFloat(2*v, 'f', -1, 64)
}

// dependents are the packages of the core that are built on each, nearest first.
func dependents(root string) (map[string][]string, error) {
	cmd := exec.Command("go", "list", "-f", "{{.ImportPath}} {{join .Deps \" \"}} {{join .TestImports \" \"}} {{join .XTestImports \" \"}}", "./core/...")
	cmd.Dir = root
	b, err := cmd.Output()
	if err != nil {
		return nil, fmt.Errorf("go list: %w", err)
	}
	out := map[string][]string{}
	for line := range strings.Lines(string(b)) {
		words := strings.Fields(line)
		for _, dep := range words[1:] {
			if inner, ok := strings.CutPrefix(dep, "coldember/"); ok && dep != words[0] {
				out[inner] = append(out[inner], strings.TrimPrefix(words[0], "coldember/"))
			}
		}
	}
	return out, nil
}

type result string

const (
	noticed    result = "noticed"
	survived   result = "SURVIVED"
	uncompiled result = "uncompiled"
)

// longest is how long tests may take before the change counts as noticed: it made
// something endless.
const longest = 3 * time.Minute

// try runs the tests over one change.
func try(root string, s site, users map[string][]string) result {
	dir, err := os.MkdirTemp("", "mutant")
	if err != nil {
		return uncompiled
	}
	defer func() { _ = os.RemoveAll(dir) }()
	src, err := os.ReadFile(filepath.Join(root, s.file))
	if err != nil {
		return uncompiled
	}
	changed := append(append(append([]byte{}, src[:s.from]...), s.is...), src[s.to:]...)
	file, overlay := filepath.Join(dir, "changed.go"), filepath.Join(dir, "overlay.json")
	text, _ := json.Marshal(map[string]any{"Replace": map[string]string{filepath.Join(root, s.file): file}})
	if os.WriteFile(file, changed, 0o600) != nil || os.WriteFile(overlay, text, 0o600) != nil {
		return uncompiled
	}
	pkg := filepath.ToSlash(filepath.Dir(s.file))
	if out, err := command(root, "build", "-overlay", overlay, "./"+pkg); err != nil || len(out) > 0 {
		return uncompiled
	}
	seen := map[string]bool{}
	for _, p := range append([]string{pkg}, users[pkg]...) {
		if seen[p] {
			continue
		}
		seen[p] = true
		if _, err := command(root, "test", "-overlay", overlay, "-failfast", "-timeout", longest.String(), "./"+p); err != nil {
			return noticed
		}
	}
	return survived
}

func command(root string, args ...string) ([]byte, error) {
	ctx, cancel := context.WithTimeout(context.Background(), longest+time.Minute)
	defer cancel()
	cmd := exec.CommandContext(ctx, "go", args...)
	cmd.Dir = root
	var out bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &out
	err := cmd.Run()
	return out.Bytes(), err
}
