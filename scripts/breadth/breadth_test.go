// Package breadth holds the house to what it is built for: one more of a kind is a file of its own and a line in a table.
package breadth

import (
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
)

// addition is one more of a kind: files of its own, and lines put before others. Tests of it do not count.
type addition struct {
	files map[string]string
	lines map[string][2]string // by file: what stands there, and what goes in front of it
	run   string               // the package whose test shows it at work
}

// Things that do nothing, but are of their kind from end to end.
var additions = map[string]addition{
	"a command": {
		files: map[string]string{
			"core/edit/nothing.go": `package edit

// DoNothing does nothing.
type DoNothing struct{}

// Op is its name on the wire.
func (c *DoNothing) Op() string { return "nothing.do" }

func (c *DoNothing) apply(*editor) error { return nil }
`,
			"core/session/nothing_test.go": `package session_test

import "testing"

func TestNothing(t *testing.T) {
	s := opener(t)
	if p, err := s.Apply(sent(` + "`" + `{"op":"batch","commands":[{"op":"nothing.do"},{"op":"nothing.do"}]}` + "`" + `)); err != nil || len(p) != 0 {
		t.Error(p, err)
	}
}
`,
		},
		lines: map[string][2]string{"core/edit/command.go": {"\t\twire[Batch](),\n", "\t\twire[DoNothing](),\n"}},
		run:   "core/session",
	},
	"a kind of layers": {
		files: map[string]string{
			"core/doc/nothing.go": `package doc

var nothingKind = &Kind{Name: "nothing", Words: "Nothing", Filled: true}
`,
			"core/frame/nothing_test.go": `package frame_test

import (
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/text"
)

func TestNothing(t *testing.T) {
	p := doc.NewProject("p", "p", 320, 240, "s")
	p.Film.Scenes[0].Layers = []*doc.Layer{{ID: "a", Thread: "a", Name: "a", Kind: "nothing", Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 9, W: 30, H: 40}}}
	raw, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	if p, err = doc.Read(raw); err != nil {
		t.Fatal(err)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	f.Player().AtRest(0, frame.View{Scale: 1})
	if b, _ := f.Box(0, "a"); b.W() != 30 || p.Film.Scenes[0].Clone().Layers[0].Is().Words != "Nothing" {
		t.Error(b)
	}
}
`,
		},
		lines: map[string][2]string{"core/doc/kind.go": {"groupKind, pathKind", "nothingKind, "}},
		run:   "core/frame",
	},
	"an effect": {
		files: map[string]string{
			"core/effect/nothing.go": `package effect

// Nothing does nothing for a while.
const Nothing = "nothing"

var _ = add(Effect{
	Name: Nothing, Words: "Nothing", Rank: 300,
	Params: []Param{num("by", "By", "How little it does", "px", 0, 0, 10)},
	Comes: &Comes{Says: [2]string{"does nothing", "does nothing"}, Rule: func(Of) func(Moment) Shown {
		return func(Moment) Shown { return Shown{Opacity: 1} }
	}},
})
`,
			"core/effect/nothing_test.go": `package effect_test

import "testing"

func TestNothing(t *testing.T) { TestEveryEffectIsDescribed(t) }
`,
		},
		run: "core/effect",
	},
	"a format of files": {
		files: map[string]string{
			"studio/export/nothing_test.go": `package export

import (
	"testing"

	"capstan/core/delivery"
)

func TestNothing(t *testing.T) {
	if !delivery.Formats["nothing"].Still || encoders["nothing"] == nil || Able("nothing") != nil {
		t.Error("it cannot be made")
	}
}
`,
		},
		lines: map[string][2]string{
			"core/delivery/delivery.go": {"\tPNG: ", "\t\"nothing\": {Words: \"Nothing\", Still: true, MaxPixels: MaxPixels},\n"},
			"studio/export/encode.go":   {"delivery.PNG: still{delivery.PNG}", "\"nothing\": still{delivery.PNG}, "},
		},
		run: "studio/export",
	},
}

// Each of them touches two files at most, and works.
func TestOneMoreOfAKindIsAFileAndALine(t *testing.T) {
	dir := t.TempDir()
	for _, part := range []string{"core", "library", "demo", "studio", "go.mod", "go.sum"} {
		copyTree(t, filepath.Join("../..", part), filepath.Join(dir, part))
	}
	run := []string{"test", "-count=1", "-run", "^TestNothing$"}
	for name, a := range additions {
		touched := len(a.lines)
		for file, text := range a.files {
			if !strings.HasSuffix(file, "_test.go") {
				touched++
			}
			if err := os.WriteFile(filepath.Join(dir, file), []byte(text), 0o644); err != nil {
				t.Fatal(err)
			}
		}
		for file, line := range a.lines {
			path := filepath.Join(dir, file)
			raw, err := os.ReadFile(path)
			if err != nil {
				t.Fatal(err)
			}
			text := strings.Replace(string(raw), line[0], line[1]+line[0], 1)
			if text == string(raw) {
				t.Fatalf("%s: %s has no %q", name, file, line[0])
			}
			if err := os.WriteFile(path, []byte(text), 0o644); err != nil {
				t.Fatal(err)
			}
		}
		if touched > 2 {
			t.Errorf("%s touches %d files", name, touched)
		}
		run = append(run, "./"+a.run)
	}
	c := exec.Command("go", run...)
	c.Dir = dir
	out, err := c.CombinedOutput()
	if err != nil || strings.Contains(string(out), "no tests to run") {
		t.Errorf("%s%v", out, err)
	}
}

// copyTree copies Go files and what is embedded in them.
func copyTree(t *testing.T, from, to string) {
	t.Helper()
	err := filepath.WalkDir(from, func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		raw, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		at := to + strings.TrimPrefix(path, from)
		if err := os.MkdirAll(filepath.Dir(at), 0o755); err != nil {
			return err
		}
		return os.WriteFile(at, raw, 0o644)
	})
	if err != nil {
		t.Fatal(err)
	}
}
