package fields_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/go-json-experiment/json"

	"capstan/core/doc"
	"capstan/core/fields"
)

// What a field of a shape lets a person type the document takes, and what lies far beyond it does not.
func TestFieldsOfShapesAreTheDocuments(t *testing.T) {
	for _, kind := range doc.Shapes {
		for _, f := range fields.Shapes[kind] {
			if f.Control != fields.Number {
				continue
			}
			for shown, fits := range map[float64]bool{f.Least: true, f.Most: true, f.Most*2 + 1e6: false} {
				p := doc.NewProject("p", "P", 100, 100, "s")
				v := map[string]any{f.Path: shown / f.Times}
				if f.Whole {
					v[f.Path] = int(shown / f.Times)
				}
				text, _ := json.Marshal(v)
				var s doc.Shape
				if err := json.Unmarshal(text, &s); err != nil {
					t.Fatal(err)
				}
				p.Film.Scenes[0].Layers = []*doc.Layer{{ID: "a", Thread: "a", Name: "A", Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{W: 10, H: 10}, Shape: &s}}
				if err := p.Validate(); (err == nil) != fits {
					t.Errorf("%s.%s of %v: %v", kind, f.Path, shown, err)
				}
			}
		}
	}
}

// Every move that is offered has its effect described or needs no numbers, and every field can be told from the others by its name.
func TestFieldsHaveNamesOfTheirOwn(t *testing.T) {
	all := map[string][]fields.Field{}
	for k, v := range fields.Shapes {
		all["shape "+k] = v
	}
	for k, v := range fields.Effects() {
		all["effect "+k] = v
	}
	for of, list := range all {
		seen := map[string]bool{}
		for _, f := range list {
			if f.Name == "" || f.Words == "" || seen[f.Name] || f.Times == 0 || f.Control == fields.Number && f.Least >= f.Most {
				t.Errorf("%s: %+v", of, f)
			}
			seen[f.Name] = true
			if strings.HasPrefix(of, "effect ") && !strings.HasPrefix(f.Path, "params.") {
				t.Errorf("%s sets %s", of, f.Path)
			}
		}
	}
	for _, o := range fields.Moves() {
		for _, m := range o.Moves {
			if _, ok := fields.Effects()[m.Effect]; !ok && m.Effect != doc.Along && m.Effect != doc.Becoming {
				t.Error(fmt.Sprint(m, " has no fields"))
			}
		}
	}
}
