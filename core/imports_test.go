package core_test

import (
	"bytes"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
)

// layers lists the folders of the house from the ground floor up; a package imports from floors below its own
// only.
var layers = []string{
	"core/words", "core/sum", "core/plain", "core/geom", "core/paint", "core/pen", "core/combine", "core/effect", "core/doc", "core/ink", "core/fields", "core/shape", "core/typeface", "core/snap", "core/text", "core/motion", "core/state", "core/morph", "core/likeness", "core/anim", "core/display", "core/frame", "core/sound", "core/delivery", "core/raster", "core/cutout", "core/vector", "core/patch", "core/series", "core/variant", "core/svg", "core/edit",
	"core/scope", "core/view", "core/overlay", "core/caret", "core/heard", "core/gesture", "core/intent", "core/intent/arrange", "core/intent/pictures", "core/intent/looks", "core/intent/texts", "core/intent/shapes", "core/intent/points", "core/intent/light", "core/intent/sounds", "core/intent/joining", "core/intent/moves", "core/intent/turns", "core/intent/scenes", "core/intent/outlines", "core/intent/project", "core/gallery",
	"core/session", "library", "demo", "studio/aside", "studio/budget", "studio/media", "studio/speech", "studio/store", "studio/bundle", "studio/export", "web", "studio/api", "bench", "cmd", "scripts",
}

// forbidden are what core must never know: the network, files, databases, the application and its interface.
var forbidden = []string{"net", "net/http", "os", "os/exec", "database/sql", "io/ioutil", "syscall", "syscall/js", "gorm.io", "github.com/gin-gonic", "capstan/studio", "capstan/web", "capstan/cmd"}

func TestImportsRunDownwardsOnly(t *testing.T) {
	floor := func(path string) int {
		if i := slices.Index(layers, path); i >= 0 {
			return i
		}
		return slices.IndexFunc(layers, func(l string) bool { return strings.HasPrefix(path, l+"/") })
	}
	seen := 0
	err := filepath.WalkDir("..", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (d.Name() == "node_modules" || d.Name() == ".git" || d.Name() == "e2e" || d.Name() == "bin" || d.Name() == "testdata") {
			return filepath.SkipDir
		}
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return nil
		}
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		if err != nil {
			return err
		}
		pkg := strings.TrimPrefix(filepath.ToSlash(filepath.Dir(path)), "../")
		own := floor(pkg)
		if own < 0 {
			t.Errorf("%s stands on no floor of the house; add it to the list here and to docs/architecture.md", pkg)
		}
		for _, im := range file.Imports {
			name := strings.Trim(im.Path.Value, `"`)
			if strings.HasPrefix(pkg, "core/") {
				for _, f := range forbidden {
					if name == f || strings.HasPrefix(name, f+"/") && f != "net" && f != "os" {
						t.Errorf("%s imports %s: the core does no I/O and has no interface", path, name)
					}
				}
			}
			if to, ok := strings.CutPrefix(name, "capstan/"); ok {
				seen++
				if floor(to) >= own {
					t.Errorf("%s imports %s, which does not lie below it", path, name)
				}
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if seen < 30 {
		t.Fatalf("only %d imports were looked at; the test no longer sees the house", seen)
	}
}

// No room of the core is large, and none knows many others but the session, which brings them together: else a newcomer cannot tell where a
// thing belongs, nor what a change may touch.
func TestRoomsAreSmall(t *testing.T) {
	lines, imports := map[string]int{}, map[string]map[string]bool{}
	all := 0
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") || strings.Contains(path, "testdata") {
			return err
		}
		raw, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		file, err := parser.ParseFile(token.NewFileSet(), path, raw, parser.ImportsOnly)
		if err != nil {
			return err
		}
		room, n := filepath.ToSlash(filepath.Dir(path)), bytes.Count(raw, []byte("\n"))
		if all += n; imports[room] == nil {
			imports[room] = map[string]bool{}
		}
		lines[room] += n
		for _, im := range file.Imports {
			if name, ok := strings.CutPrefix(strings.Trim(im.Path.Value, `"`), "capstan/core/"); ok {
				imports[room][name] = true
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	for room, n := range lines {
		if 100*n > 12*all {
			t.Errorf("%s has %d lines of the core’s %d: more than 12 %%", room, n, all)
		}
		if len(imports[room]) > 8 && room != "session" {
			t.Errorf("%s imports %d rooms: %v", room, len(imports[room]), imports[room])
		}
	}
}
