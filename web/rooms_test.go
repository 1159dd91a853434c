package web

import (
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
)

// rooms are the folders of the page from the ground floor up; a file imports from its own room and from floors below. Screens do not know
// each other, so that what two of them need lies below them.
var rooms = [][]string{
	{"words.ts", "time.ts", "remember.ts", "go.ts", "rem.ts"}, {"server", "engine", "engine/paint"}, {"project/desk"}, {"sound"}, {"project"}, {"ui"}, {"actions"}, {"gallery"},
	{"start", "desk", "inspector", "timeline", "export", "stages", "pairs", "variants"}, {"App.tsx"}, {"main.tsx"},
}

var imports = regexp.MustCompile(`(?m)^(?:import|export)\s(?:[^'"]*\sfrom\s)?'(\.[^']*)'`)

func TestRoomsOfThePageImportDownwardsOnly(t *testing.T) {
	floor := func(file string) (int, string) {
		for _, name := range []string{file, path.Dir(file)} {
			if i := slices.IndexFunc(rooms, func(r []string) bool { return slices.Contains(r, name) }); i >= 0 {
				return i, name
			}
		}
		return -1, ""
	}
	files := os.DirFS("src")
	found := 0
	err := fs.WalkDir(files, ".", func(file string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasPrefix(filepath.Ext(file), ".ts") {
			return err
		}
		text, err := fs.ReadFile(files, file)
		if err != nil {
			return err
		}
		own, room := floor(file)
		if own < 0 && !strings.HasSuffix(file, ".d.ts") {
			t.Errorf("%s lies on no floor of the page; add its room to the list here and to docs/architecture.md", file)
		}
		for _, m := range imports.FindAllStringSubmatch(string(text), -1) {
			to := path.Join(path.Dir(file), m[1])
			if i := slices.IndexFunc([]string{".ts", ".tsx", "/index.ts"}, func(end string) bool { _, err := fs.Stat(files, to+end); return err == nil }); i >= 0 {
				to += []string{".ts", ".tsx", "/index.ts"}[i]
			} else {
				continue // styles
			}
			found++
			below, other := floor(to)
			if below > own || below == own && other != room && slices.Contains(rooms[own], "desk") {
				t.Errorf("%s imports %s, which lies above or beside it", file, to)
			}
		}
		return nil
	})
	if err != nil || found < 300 {
		t.Errorf("%d imports found (%v)", found, err)
	}
}
