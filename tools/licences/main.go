// Licences lists everything that is shipped with the application and under which terms:
// the Go modules in the program, the packages in the pages, the fonts. It fails on what it
// does not know the terms of, and on terms that the application cannot be shipped under.
//
//	go -C tools run ./licences -root .. > docs/licences.md
package main

import (
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"sort"
	"strings"
)

// allowed are the terms that what is shipped may have: they ask for the notice alone.
var allowed = []string{"MIT", "BSD-2-Clause", "BSD-3-Clause", "Apache-2.0", "ISC", "OFL-1.1", "0BSD", "Zlib", "Unlicense", "BSD-3-Clause AND MIT"}

// phrases that only one licence has; the first that is found counts.
var phrases = []struct{ text, name string }{
	{"Apache License Version 2.0", "Apache-2.0"},
	{"Mozilla Public License", "MPL-2.0"},
	{"GNU LESSER GENERAL PUBLIC", "LGPL"},
	{"GNU GENERAL PUBLIC", "GPL"},
	{"SIL Open Font License", "OFL-1.1"},
	{"SIL OPEN FONT LICENSE", "OFL-1.1"},
	{"Permission to use, copy, modify, and/or distribute this software for any purpose", "ISC"},
	{"Permission to use, copy, modify, and distribute this software for any purpose", "ISC"},
	{"Neither the name of", "BSD-3-Clause"},
	{"may be used to endorse or promote products", "BSD-3-Clause"},
	{"Redistributions in binary form must reproduce", "BSD-2-Clause"},
	{"Permission is hereby granted, free of charge", "MIT"},
	{"This is free and unencumbered software", "Unlicense"},
}

type entry struct{ name, version, terms, notice string }

func main() {
	root := flag.String("root", "..", "the folder of the application")
	flag.Parse()
	if err := run(*root, os.Stdout); err != nil {
		fmt.Fprintln(os.Stderr, "licences:", err)
		os.Exit(1)
	}
}

func run(root string, out io.Writer) error {
	mods, err := modules(root)
	if err != nil {
		return err
	}
	packages, err := pages(root)
	if err != nil {
		return err
	}
	fonts, err := fonts(root)
	if err != nil {
		return err
	}
	var b bytes.Buffer
	b.WriteString("# What is shipped, and under which terms\n\nMade by `make licences`; `make lint` fails where it is stale, or where something is shipped under terms that ask for more than the notice.\n")
	for _, part := range []struct {
		title string
		list  []entry
	}{{"In the program", mods}, {"In the pages", packages}, {"Fonts in the program", fonts}} {
		fmt.Fprintf(&b, "\n## %s\n\n| what | version | terms | notice |\n|---|---|---|---|\n", part.title)
		for _, e := range part.list {
			if !slices.Contains(allowed, e.terms) {
				return fmt.Errorf("%s %s: terms %q", e.name, e.version, e.terms)
			}
			fmt.Fprintf(&b, "| %s | %s | %s | %s |\n", e.name, e.version, e.terms, strings.ReplaceAll(e.notice, "|", "/"))
		}
	}
	_, err = out.Write(b.Bytes())
	return err
}

// modules are what the program is built from.
func modules(root string) ([]entry, error) {
	cmd := exec.Command("go", "list", "-deps", "-f", "{{with .Module}}{{if not .Main}}{{.Path}} {{.Version}} {{.Dir}}{{end}}{{end}}", "./cmd/coldember")
	cmd.Dir, cmd.Stderr = root, os.Stderr
	text, err := cmd.Output()
	if err != nil {
		return nil, err
	}
	lines := strings.Split(strings.TrimSpace(string(text)), "\n")
	slices.Sort(lines)
	var out []entry
	for _, l := range slices.Compact(lines) {
		f := strings.Fields(l)
		if len(f) != 3 {
			continue
		}
		e := entry{name: f[0], version: f[1]}
		if e.terms, e.notice, err = read(f[2]); err != nil {
			return nil, fmt.Errorf("%s: %w", e.name, err)
		}
		out = append(out, e)
	}
	// wherever Go was put by those who packed it, its terms are the same
	e := entry{"the standard library of Go", "", "BSD-3-Clause", "Copyright 2009 The Go Authors."}
	return append(out, e), nil
}

// pages are the packages that the pages are built from, with what those need.
func pages(root string) ([]entry, error) {
	text, err := os.ReadFile(filepath.Join(root, "web", "package-lock.json"))
	if err != nil {
		return nil, err
	}
	var lock struct {
		Packages map[string]struct {
			Version, License string
			Dev, Optional    bool
		}
	}
	if err := json.Unmarshal(text, &lock); err != nil {
		return nil, err
	}
	var out []entry
	for path, p := range lock.Packages {
		if path == "" || p.Dev || p.Optional {
			continue
		}
		_, notice, _ := read(filepath.Join(root, "web", path)) // some have no file of their own
		i := strings.LastIndex(path, "node_modules/")
		out = append(out, entry{path[i+len("node_modules/"):], p.Version, p.License, notice})
	}
	sort.Slice(out, func(i, j int) bool { return out[i].name+out[i].version < out[j].name+out[j].version })
	return slices.Compact(out), nil
}

// fonts that the cards are printed with.
func fonts(root string) ([]entry, error) {
	files, err := filepath.Glob(filepath.Join(root, "internal", "export", "fonts", "OFL-*.txt"))
	var out []entry
	for _, f := range files {
		text, err := os.ReadFile(f)
		if err != nil {
			return nil, err
		}
		terms, notice := judge(string(text))
		out = append(out, entry{strings.TrimSuffix(strings.TrimPrefix(filepath.Base(f), "OFL-"), ".txt"), "", terms, notice})
	}
	return out, err
}

// read finds the licence of a folder.
func read(dir string) (terms, notice string, err error) {
	files, err := os.ReadDir(dir)
	if err != nil {
		return "", "", err
	}
	for _, f := range files {
		name := strings.ToUpper(f.Name())
		if f.IsDir() || !strings.HasPrefix(name, "LICENSE") && !strings.HasPrefix(name, "LICENCE") && !strings.HasPrefix(name, "COPYING") {
			continue
		}
		text, err := os.ReadFile(filepath.Join(dir, f.Name()))
		if err != nil {
			return "", "", err
		}
		if terms, notice = judge(string(text)); terms != "" {
			return terms, notice, nil
		}
	}
	return "", "", fmt.Errorf("no licence that is known in %s", filepath.Base(dir))
}

// judge tells the terms of a text, and its first notice.
func judge(text string) (terms, notice string) {
	flat := strings.Join(strings.Fields(text), " ")
	for _, p := range phrases {
		if strings.Contains(flat, p.text) {
			terms = p.name
			break
		}
	}
	for line := range strings.Lines(text) {
		line = strings.Trim(line, " \t\r\n#*/")
		if low := strings.ToLower(line); strings.HasPrefix(low, "copyright") && !strings.HasPrefix(low, "copyright [") && !strings.Contains(low, "license") && !strings.Contains(low, "copyright owner") && !strings.Contains(low, "copyright holder") && !strings.Contains(low, "copyright notice") && !strings.Contains(low, "statement") {
			line, _, _ = strings.Cut(line, " (http")
			return terms, line
		}
	}
	return terms, ""
}
