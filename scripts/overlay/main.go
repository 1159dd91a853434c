// Command overlay prepares what the engine is built with, in bin: overlay.json for go build -overlay, and engine.mod with a copy of
// the font library for go build -modfile. The engine draws outlines alone, but the library also reads the sizes of PNG and JPEG
// glyphs; without these two decoders it is 43 KB smaller to send. It sets all text as English; without the table of all other
// languages it is 25 KB smaller, and without the tables of coloured and painted glyphs, and of layout
// of Apple's own kind, another 60, and without variations and names another 30.
package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strings"
)

func main() {
	if err := write(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func write() error {
	replace := map[string]string{}
	for _, kind := range []string{"jpeg", "png"} {
		stub, err := filepath.Abs(filepath.Join("scripts", "overlay", "stub", kind+".go.txt"))
		if err != nil {
			return err
		}
		files, err := filepath.Glob(filepath.Join(runtime.GOROOT(), "src", "image", kind, "*.go"))
		if err != nil || len(files) == 0 {
			return fmt.Errorf("the sources of image/%s are not in %s: %v", kind, runtime.GOROOT(), err)
		}
		for _, f := range files {
			switch {
			case strings.HasSuffix(f, "_test.go"):
			case filepath.Base(f) == "reader.go":
				replace[f] = stub
			default:
				replace[f] = "" // as if it were not there
			}
		}
	}
	if err := trimmed("github.com/go-text/typesetting", filepath.Join("bin", "typesetting")); err != nil {
		return err
	}
	raw, err := json.Marshal(map[string]any{"Replace": replace})
	if err != nil {
		return err
	}
	return os.WriteFile(filepath.Join("bin", "overlay.json"), raw, 0o644)
}

// cuts are stretches of the font library's font/font.go that read what outlines do not need, each from its first words to before the
// words that follow it.
var cuts = [][2]string{
	{"\tout.bitmap = selectBitmapTable(ld)", "\tout.cff, _ = loadCff("},
	// Variations, names and Apple's layout: no family that ships has them, and own fonts are written anew without (core/typeface).
	{"\traw, _ = ld.RawTable(ot.MustNewTag(\"fvar\"))", "\tout.upem = out.head.Upem()"},
	{"\tout.cff2, _ = loadCff2(", "\tout.hhea, out.hmtx, _ = loadHmtx("},
	{"\tif axisCount := len(out.fvar)", "\t// layout tables\n"},
	{"\traw, _ = ld.RawTable(ot.MustNewTag(\"morx\"))", "\traw, _ = ld.RawTable(ot.MustNewTag(\"kern\"))"},
	{"\traw, _ = ld.RawTable(ot.MustNewTag(\"ankr\"))", "\treturn &out, nil\n}\n\n// see harfbuzz"},
}

func cut(raw []byte) ([]byte, error) {
	for _, c := range cuts {
		from := bytes.Index(raw, []byte(c[0]))
		to := bytes.Index(raw, []byte(c[1]))
		if from < 0 || to < from {
			return nil, fmt.Errorf("the font library has changed: %q is not where it was", c[0])
		}
		raw = append(raw[:from:from], raw[to:]...)
	}
	return raw, nil
}

// trimmed copies a module to a folder, without what the engine does not need, and writes bin/engine.mod that uses the copy:
// go build -overlay does not reach into the module cache.
func trimmed(module, to string) error {
	// On a new machine it has yet to be fetched; go list would name no folder then.
	out, err := exec.Command("go", "mod", "download", "-json", module).Output()
	if err != nil {
		return fmt.Errorf("fetching %s: %v", module, err)
	}
	var got struct{ Dir string }
	if err := json.Unmarshal(out, &got); err != nil {
		return fmt.Errorf("where %s lies: %v", module, err)
	}
	from, table := got.Dir, filepath.Join("harfbuzz", "ot_language_table.go")
	if err := os.RemoveAll(to); err != nil {
		return err
	}
	replaced := false
	err = filepath.WalkDir(from, func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		name, _ := filepath.Rel(from, path)
		if d.IsDir() {
			if d.Name() == "testdata" || name == "testutils" || name == "fontscan" {
				return filepath.SkipDir
			}
			return os.MkdirAll(filepath.Join(to, name), 0o755)
		}
		source := path
		switch {
		case name == table:
			source, replaced = filepath.Join("scripts", "overlay", "stub", "language.go.txt"), true
		case strings.HasSuffix(name, "_test.go"):
			return nil
		}
		raw, err := os.ReadFile(source)
		if err != nil {
			return err
		}
		if name == filepath.Join("font", "font.go") {
			if raw, err = cut(raw); err != nil {
				return err
			}
		}
		return os.WriteFile(filepath.Join(to, name), raw, 0o644)
	})
	if err == nil && !replaced {
		err = fmt.Errorf("%s has no %s", module, table)
	}
	if err != nil {
		return err
	}
	mod, err := os.ReadFile("go.mod")
	if err != nil {
		return err
	}
	sum, err := os.ReadFile("go.sum")
	if err != nil {
		return err
	}
	mod = fmt.Appendf(mod, "\nreplace %s => ./%s\n", module, filepath.ToSlash(to))
	if err := os.WriteFile(filepath.Join("bin", "engine.mod"), mod, 0o644); err != nil {
		return err
	}
	return os.WriteFile(filepath.Join("bin", "engine.sum"), sum, 0o644)
}
