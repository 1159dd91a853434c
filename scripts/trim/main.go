// Command trim prepares what the engine is built with, in bin: engine.mod, with a copy of the font library for go build -modfile. The engine
// draws outlines alone, sets all text as English, and gets no fonts but those that ship and those that were written anew
// (core/typeface). The copy lacks what that leaves without use: sizes of pictures in fonts (PNG, JPEG and TIFF decoders), the
// table of 1,600 other languages, coloured and painted glyphs, variations, names, and layout of Apple's own kind. All of it would be
// 170 KB more to send.
package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
)

func main() {
	if err := trimmed("github.com/go-text/typesetting", filepath.Join("bin", "typesetting")); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

// cut is a stretch of a file from its first words to before the words that follow it, and what stands there instead.
type cut struct{ from, to, instead string }

// cuts are what is left out, by file of the library.
var cuts = map[string][]cut{
	"font/font.go": {
		{"\tout.bitmap = selectBitmapTable(ld)", "\tout.cff, _ = loadCff(", ""},
		{"\traw, _ = ld.RawTable(ot.MustNewTag(\"fvar\"))", "\tout.upem = out.head.Upem()", ""},
		{"\tout.cff2, _ = loadCff2(", "\tout.hhea, out.hmtx, _ = loadHmtx(", ""},
		{"\tif axisCount := len(out.fvar)", "\t// layout tables\n", ""},
		{"\traw, _ = ld.RawTable(ot.MustNewTag(\"morx\"))", "\traw, _ = ld.RawTable(ot.MustNewTag(\"kern\"))", ""},
		{"\traw, _ = ld.RawTable(ot.MustNewTag(\"ankr\"))", "\treturn &out, nil\n}\n\n// see harfbuzz", ""},
	},
	"font/glyphs.go": {
		{"\t\"bytes\"\n", "\t\"encoding/binary\"", ""},
		{"\t\"image\"\n", "\n\tot \"github.com", ""},
		{"\t\"golang.org/x/image/tiff\"\n", ")\n\ntype contourPoint", ""},
		{"\tvar config image.Config", "}\n\n// return the extents", "\treturn 0, 0, 0, fmt.Errorf(\"pictures of glyphs are not read\")\n"},
	},
}

func without(name string, raw []byte) ([]byte, error) {
	for _, c := range cuts[filepath.ToSlash(name)] {
		from := bytes.Index(raw, []byte(c.from))
		to := bytes.Index(raw, []byte(c.to))
		if from < 0 || to < from {
			return nil, fmt.Errorf("the font library has changed: %q is not where it was in %s", c.from, name)
		}
		raw = append(append(raw[:from:from], c.instead...), raw[to:]...)
	}
	return raw, nil
}

// trimmed copies a module to a folder, without what the engine does not need, and writes bin/engine.mod that uses the copy.
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
			source, replaced = filepath.Join("scripts", "trim", "stub", "language.go.txt"), true
		case strings.HasSuffix(name, "_test.go"):
			return nil
		}
		raw, err := os.ReadFile(source)
		if err != nil {
			return err
		}
		if raw, err = without(name, raw); err != nil {
			return err
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
