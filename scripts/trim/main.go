// Command trim prepares what the engine is built with, in bin: engine.mod, with copies of libraries for go build -modfile that
// lack what the engine has no use for (cuts.go). All of it would be 200 KB more to send.
package main

import (
	"encoding/json"
	"fmt"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
)

func main() {
	if err := trim(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func trim() error {
	mod, err := os.ReadFile("go.mod")
	if err != nil {
		return err
	}
	for _, l := range libraries {
		if err := l.copy(); err != nil {
			return err
		}
		mod = fmt.Appendf(mod, "\nreplace %s => ./%s\n", l.module, filepath.ToSlash(l.to()))
	}
	sum, err := os.ReadFile("go.sum")
	if err != nil {
		return err
	}
	if err := os.WriteFile(filepath.Join("bin", "engine.mod"), mod, 0o644); err != nil {
		return err
	}
	return os.WriteFile(filepath.Join("bin", "engine.sum"), sum, 0o644)
}

func (l *library) to() string { return filepath.Join("bin", filepath.Base(l.module)) }

// copy copies the library to its folder, without what the engine does not need.
func (l *library) copy() error {
	// On a new machine it has yet to be fetched; go list would name no folder then.
	out, err := exec.Command("go", "mod", "download", "-json", l.module).Output()
	if err != nil {
		return fmt.Errorf("fetching %s: %v", l.module, err)
	}
	var got struct{ Dir string }
	if err := json.Unmarshal(out, &got); err != nil {
		return fmt.Errorf("where %s lies: %v", l.module, err)
	}
	if err := os.RemoveAll(l.to()); err != nil {
		return err
	}
	left := len(l.stubs) + len(l.cuts)
	err = filepath.WalkDir(got.Dir, func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		name, _ := filepath.Rel(got.Dir, path)
		slashed := filepath.ToSlash(name)
		switch {
		case d.IsDir() && (d.Name() == "testdata" || l.without[slashed]):
			return filepath.SkipDir
		case d.IsDir():
			return os.MkdirAll(filepath.Join(l.to(), name), 0o755)
		case strings.HasSuffix(name, "_test.go"):
			return nil
		}
		if stub := l.stubs[slashed]; stub != "" {
			path = filepath.Join("scripts", "trim", "stub", stub)
			left--
		}
		raw, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		if cuts := l.cuts[slashed]; cuts != nil {
			left--
			for _, c := range cuts {
				if raw, err = c.of(raw); err != nil {
					return fmt.Errorf("%s, %s: %v", l.module, slashed, err)
				}
			}
		}
		return os.WriteFile(filepath.Join(l.to(), name), raw, 0o644)
	})
	if err == nil && left > 0 {
		err = fmt.Errorf("%s lacks %d of the files that are trimmed", l.module, left)
	}
	return err
}
