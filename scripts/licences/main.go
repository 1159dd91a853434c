// Command licences writes docs/licences.md: everything that ships with Capstan, with its version and licence. A test fails
// when something ships that is not listed.
package main

import (
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"sort"
	"strings"
)

// piece is one module, package or font that ships.
type piece struct{ name, version, licence, where string }

func main() {
	list, err := shipped(".")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	if err := os.WriteFile("docs/licences.md", []byte(page(list)), 0o644); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func page(list []piece) string {
	var b strings.Builder
	b.WriteString("# Licences of what ships with Capstan\n\nWritten by `go run ./scripts/licences`; a test fails when something is missing here.\n\n| what | version | licence | where |\n| --- | --- | --- | --- |\n")
	for _, p := range list {
		fmt.Fprintf(&b, "| %s | %s | %s | %s |\n", p.name, p.version, p.licence, p.where)
	}
	b.WriteString("\nThe full texts lie in each module and package, and beside the font files in `library/fonts`. ffmpeg and Chromium are not shipped: they are Debian's packages, run as programs of their own.\n")
	return b.String()
}

// shipped lists the Go modules in the binary and the engine, the npm packages in the page, and the fonts.
func shipped(root string) ([]piece, error) {
	var out []piece
	seen := map[string]bool{}
	for _, env := range [][]string{nil, {"GOOS=js", "GOARCH=wasm"}} {
		target, where := "./cmd/capstan", "binary"
		if env != nil {
			target, where = "./cmd/engine", "engine"
		}
		cmd := exec.Command("go", "list", "-deps", "-f", "{{with .Module}}{{if not .Main}}{{.Path}}\t{{.Version}}\t{{.Dir}}{{end}}{{end}}", target)
		cmd.Dir, cmd.Env = root, append(os.Environ(), env...)
		raw, err := cmd.Output()
		if err != nil {
			return nil, fmt.Errorf("go list: %w", err)
		}
		for _, line := range strings.Split(strings.TrimSpace(string(raw)), "\n") {
			f := strings.Split(line, "\t")
			if len(f) != 3 || seen[f[0]] {
				continue
			}
			seen[f[0]] = true
			licence, err := recognise(f[2])
			if err != nil {
				return nil, fmt.Errorf("%s: %w", f[0], err)
			}
			out = append(out, piece{f[0], f[1], licence, where})
		}
	}
	npm, err := packages(root)
	if err != nil {
		return nil, err
	}
	out = append(out, npm...)
	fonts, err := filepath.Glob(filepath.Join(root, "library/fonts/*-LICENSE.txt"))
	if err != nil {
		return nil, err
	}
	for _, f := range fonts {
		raw, err := os.ReadFile(f)
		if err != nil {
			return nil, err
		}
		if !strings.Contains(string(raw), "SIL Open Font License, Version 1.1") {
			return nil, fmt.Errorf("%s holds no licence we know", f)
		}
		out = append(out, piece{"font " + strings.TrimSuffix(filepath.Base(f), "-LICENSE.txt"), "", "OFL-1.1", "library"})
	}
	sort.Slice(out, func(i, j int) bool { return out[i].name < out[j].name })
	return out, nil
}

// packages reads what the page is built of from the lock file: everything that is not for development alone.
func packages(root string) ([]piece, error) {
	raw, err := os.ReadFile(filepath.Join(root, "web/package-lock.json"))
	if err != nil {
		return nil, err
	}
	var lock struct {
		Packages map[string]struct {
			Version, License string
			Dev, Optional    bool
		}
	}
	if err := json.Unmarshal(raw, &lock); err != nil {
		return nil, err
	}
	var out []piece
	for path, p := range lock.Packages {
		if path == "" || p.Dev || p.Optional {
			continue
		}
		name := path[strings.LastIndex(path, "node_modules/")+len("node_modules/"):]
		if p.License == "" {
			return nil, fmt.Errorf("%s says no licence", path)
		}
		out = append(out, piece{name, p.Version, p.License, "page"})
	}
	return out, nil
}

// recognise tells the licence of a module by the words of its licence file.
func recognise(dir string) (string, error) {
	for _, name := range []string{"LICENSE", "LICENSE.txt", "LICENSE.md", "License", "LICENCE", "COPYING", "UNLICENSE"} {
		raw, err := os.ReadFile(filepath.Join(dir, name))
		if err != nil {
			continue
		}
		text := strings.Join(strings.Fields(string(raw)), " ")
		for _, k := range [][2]string{
			{"Apache License", "Apache-2.0"}, {"Permission is hereby granted, free of charge", "MIT"}, {"Mozilla Public License", "MPL-2.0"},
			{"Neither the name", "BSD-3-Clause"}, {"Redistribution and use in source and binary forms", "BSD-2-Clause"}, {"free and unencumbered", "Unlicense"},
		} {
			if strings.Contains(text, k[0]) {
				return k[1], nil
			}
		}
	}
	return "", fmt.Errorf("no licence we know in its folder")
}
