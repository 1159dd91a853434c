package effect_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"math"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"capstan/core/effect"
	"capstan/core/geom"
)

// What an effect is is asked of the catalogue: outside this room no code names one. Demos and benchmarks are films, and name what they use.
func TestNoEffectIsNamedOutsideItsRoom(t *testing.T) {
	names := map[string]bool{}
	for _, e := range effect.All() {
		names[e.Name] = true
	}
	read := 0
	err := filepath.WalkDir("../..", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() {
			switch d.Name() {
			case "node_modules", ".git", "bin", "effect", "demo", "bench", "e2e", "testdata", "dist":
				return filepath.SkipDir
			}
			return nil
		}
		switch {
		case strings.HasSuffix(path, ".ts") || strings.HasSuffix(path, ".tsx"):
			raw, err := os.ReadFile(path)
			if err != nil {
				return err
			}
			read++
			for _, m := range regexp.MustCompile(`(?i)effect\w*\s*[!=]==?\s*'([\w-]*)'`).FindAllStringSubmatch(string(raw), -1) {
				if names[m[1]] {
					t.Errorf("%s: %s", path, m[0])
				}
			}
			return nil
		case !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go"):
			return nil
		}
		set := token.NewFileSet()
		file, err := parser.ParseFile(set, path, nil, 0)
		if err != nil {
			return err
		}
		read++
		named := func(e ast.Expr) bool {
			switch e := e.(type) {
			case *ast.BasicLit:
				s, _ := strconv.Unquote(e.Value)
				return e.Kind == token.STRING && names[s]
			case *ast.SelectorExpr:
				x, ok := e.X.(*ast.Ident)
				return ok && x.Name == "effect" && names[constants[e.Sel.Name]]
			}
			return false
		}
		ofEffect := func(e ast.Expr) bool {
			s, ok := e.(*ast.SelectorExpr)
			return ok && s.Sel.Name == "Effect"
		}
		ast.Inspect(file, func(n ast.Node) bool {
			bad := false
			switch n := n.(type) {
			case *ast.SelectorExpr:
				bad = named(n)
			case *ast.BinaryExpr:
				bad = ofEffect(n.X) && named(n.Y)
			case *ast.SwitchStmt:
				for _, c := range n.Body.List {
					for _, v := range c.(*ast.CaseClause).List {
						bad = bad || n.Tag != nil && ofEffect(n.Tag) && named(v)
					}
				}
			}
			if bad {
				t.Errorf("%s names an effect", set.Position(n.Pos()))
			}
			return true
		})
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if read < 200 {
		t.Errorf("only %d files were read", read)
	}
}

// constants are the names of effects by those of their constants, as the files of this room have them.
var constants = func() map[string]string {
	all := map[string]string{}
	files, err := filepath.Glob("*.go")
	if err != nil {
		panic(err)
	}
	for _, path := range files {
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		if err != nil {
			panic(err)
		}
		ast.Inspect(file, func(n ast.Node) bool {
			if v, ok := n.(*ast.ValueSpec); ok && len(v.Names) == 1 && len(v.Values) == 1 {
				if lit, ok := v.Values[0].(*ast.BasicLit); ok && lit.Kind == token.STRING {
					if s, err := strconv.Unquote(lit.Value); err == nil && effect.Named(s) != nil {
						all[v.Names[0].Name] = s
					}
				}
			}
			return true
		})
	}
	return all
}()

// Every effect can be said: it has words of its own for what it is, does and takes, and every parameter takes its usual value and refuses what is
// none.
func TestEveryEffectIsDescribed(t *testing.T) {
	words, ranks := map[string]bool{}, map[int]bool{}
	for _, e := range effect.All() {
		if e.Words == "" || words[e.Words] || ranks[e.Rank] || len(e.Kinds()) == 0 {
			t.Errorf("%s: %q at %d", e.Name, e.Words, e.Rank)
		}
		words[e.Words], ranks[e.Rank] = true, true
		if e.Comes != nil && (e.Comes.Says[0] == "" || e.Comes.Says[1] == "") || e.Goes != nil && e.Goes.Says == "" || e.Pages != nil && e.Pages.Sign[0] == "" {
			t.Errorf("%s has no words", e.Name)
		}
		if constantOf(e.Name) == "" {
			t.Errorf("%s has no constant in this test", e.Name)
		}
		for _, q := range e.Params {
			if q.Usual != nil && q.Check(q.Usual) != "" {
				t.Errorf("%s: the usual %s is refused: %s", e.Name, q.Name, q.Check(q.Usual))
			}
			for _, bad := range []any{math.NaN(), math.Inf(1), "nothing of the kind", map[string]any{}, -1e12, 1e12} {
				if _, word := bad.(string); word && (q.Control == effect.Move || q.Control == effect.Layer) {
					continue
				}
				if q.Check(bad) == "" {
					t.Errorf("%s: %s takes %v", e.Name, q.Name, bad)
				}
			}
			if q.Mirror != nil && q.Usual != nil {
				if back := q.Mirror(q.Mirror(q.Usual)); back != q.Usual {
					t.Errorf("%s: %s mirrored twice is %v, not %v", e.Name, q.Name, back, q.Usual)
				}
			}
		}
		for _, k := range e.Kinds() {
			for _, o := range e.Offered(k) {
				for name, v := range e.Fresh(&o, effect.Setting{PageW: 1920, PageH: 1080, Box: geom.Box{Max: geom.Point{X: 300, Y: 200}}}) {
					if q := e.Param(name); q == nil || q.Check(v) != "" {
						t.Errorf("%s offers %s %v", e.Name, name, v)
					}
				}
			}
		}
	}
}

func constantOf(name string) string {
	for k, v := range constants {
		if v == name {
			return k
		}
	}
	return ""
}

// The worked curve of two rebounds (docs/motion.md, section 4): U = 2.5; it lands at 0.4, 0.8 and 1, and rises to 1/4 and 1/16 in between.
func TestABounceReboundsAsItIsDefined(t *testing.T) {
	for _, c := range [][2]float64{{0, 1}, {0.2, 0.75}, {0.4, 0}, {0.6, 0.25}, {0.8, 0}, {0.9, 0.0625}, {1, 0}} {
		if got := effect.Rebound(2, c[0]); math.Abs(got-c[1]) > 1e-12 {
			t.Errorf("at %v it is %v high, want %v", c[0], got, c[1])
		}
	}
	if got := effect.Rebound(0, 0.5); got != 0.75 {
		t.Errorf("without rebounds it is a fall: %v", got)
	}
}
