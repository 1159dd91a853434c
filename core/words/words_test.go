package words_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"capstan/core/words"
)

func catalogue(t *testing.T) (faults map[string][]string, notices map[string]string) {
	t.Helper()
	raw, err := os.ReadFile("catalogue.json")
	if err != nil {
		t.Fatal(err)
	}
	var c struct {
		Faults  map[string][]string
		Notices map[string]string
	}
	if err := json.Unmarshal(raw, &c); err != nil {
		t.Fatal(err)
	}
	return c.Faults, c.Notices
}

func TestEveryFaultSaysWhatHappenedWhatIsKeptAndWhatHelps(t *testing.T) {
	faults, notices := catalogue(t)
	for key, m := range faults {
		if len(m) != 3 {
			t.Errorf("%s has %d parts", key, len(m))
			continue
		}
		for i, part := range m {
			end := strings.HasSuffix(part, ".") || strings.HasSuffix(part, ": {why}")
			if part == "" || !end || strings.Contains(part, "%") || strings.Contains(part, "'") {
				t.Errorf("%s, part %d: %q is no sentence", key, i+1, part)
			}
		}
	}
	for key, s := range notices {
		if !strings.HasSuffix(s, ".") && !strings.HasSuffix(s, "…") {
			t.Errorf("%s: %q is no sentence", key, s)
		}
	}
}

var placeholder = regexp.MustCompile(`\{[^}]*\}`)

// Every key that the code names is in the catalogue, with as many arguments as it has places; and every entry is said somewhere.
func TestTheCodeAndTheCatalogueAgree(t *testing.T) {
	faults, notices := catalogue(t)
	said := map[string]bool{}
	err := filepath.WalkDir("../..", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && slices.Contains([]string{"node_modules", ".git", "dist"}, d.Name()) {
			return fs.SkipDir
		}
		switch {
		case strings.HasSuffix(path, "_test.go"):
		case strings.HasSuffix(path, ".go"):
			goKeys(t, path, faults, said)
		case strings.HasSuffix(path, ".ts"), strings.HasSuffix(path, ".tsx"):
			raw, err := os.ReadFile(path)
			if err != nil {
				return err
			}
			for key := range notices {
				if strings.Contains(string(raw), "'"+key+"'") {
					said[key] = true
				}
			}
			for key := range faults {
				if strings.Contains(string(raw), "fault('"+key+"'") {
					said[key] = true
				}
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	for key := range faults {
		if !said[key] {
			t.Errorf("%s is said nowhere", key)
		}
	}
	for key := range notices {
		if !said[key] {
			t.Errorf("%s is said nowhere", key)
		}
	}
}

// goKeys marks every string of a Go file that is a key, and checks the arguments of words.New, words.Because and refuse.
func goKeys(t *testing.T, path string, faults map[string][]string, said map[string]bool) {
	file, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
	if err != nil {
		t.Fatal(err)
	}
	ast.Inspect(file, func(n ast.Node) bool {
		if lit, ok := n.(*ast.BasicLit); ok && lit.Kind == token.STRING {
			s, _ := strconv.Unquote(lit.Value)
			if _, ok := faults[s]; ok && s != "internal" {
				said[s] = true
			}
		}
		call, ok := n.(*ast.CallExpr)
		if !ok {
			return true
		}
		at := -1 // of the key among the arguments
		switch f := call.Fun.(type) {
		case *ast.SelectorExpr:
			if x, ok := f.X.(*ast.Ident); ok && x.Name == "words" {
				at = map[string]int{"New": 0, "Because": 1}[f.Sel.Name]
				if f.Sel.Name != "New" && f.Sel.Name != "Because" {
					at = -1
				}
			}
		case *ast.Ident:
			if f.Name == "refuse" {
				at = 1
			}
		}
		if at < 0 || at >= len(call.Args) {
			return true
		}
		lit, ok := call.Args[at].(*ast.BasicLit)
		if !ok {
			return true // a key that was looked up; the table of it is seen above
		}
		key, _ := strconv.Unquote(lit.Value)
		said[key] = true
		m, ok := faults[key]
		if !ok {
			t.Errorf("%s: %s is not in the catalogue", path, key)
			return true
		}
		if want, have := len(placeholder.FindAllString(fmt.Sprint(m), -1)), len(call.Args)-at-1; want != have {
			t.Errorf("%s: %s has %d places and is given %d", path, key, want, have)
		}
		return true
	})
}

func TestPlacesAreFilledInOrder(t *testing.T) {
	f := words.New("picture.side", 9200, 8192)
	if f.Happened != "This picture is 9200 pixels along its longer side; the largest is 8192." || f.Kept != "Nothing was imported." {
		t.Errorf("got %q, %q", f.Happened, f.Kept)
	}
	cause := errors.New("no space")
	err := fmt.Errorf("export: %w", words.Because(cause, "export.full"))
	if !words.Is(err, "export.full") || words.Is(err, "disk.full") || !errors.Is(err, cause) {
		t.Error("a fault is not found by its key, or loses its cause")
	}
}
