package plain_test

import (
	"encoding/json"
	"io/fs"
	"math"
	"reflect"
	"strings"
	"testing"

	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/plain"
	"capstan/core/scope"
	"capstan/core/session"
	"capstan/demo"
	"capstan/library"
)

// filled is what the page makes of a form and its numbers.
func filled(t *testing.T, v any) any {
	t.Helper()
	var w plain.Writer
	form, numbers, err := w.Write(v)
	if err != nil {
		t.Fatal(err)
	}
	d := jsontext.NewDecoder(strings.NewReader(string(form)))
	var whole func() any
	whole = func() any {
		k, err := d.ReadToken()
		if err != nil {
			t.Fatalf("%v in %.300s", err, form)
		}
		switch k.Kind() {
		case '0':
			if k.String() != "0" || len(numbers) == 0 {
				t.Fatalf("a number %s stands in the form, %d are left", k, len(numbers))
			}
			n := numbers[0]
			numbers = numbers[1:]
			return n
		case '{':
			out := map[string]any{}
			for d.PeekKind() != '}' {
				key, _ := d.ReadToken()
				name := key.String()
				out[name] = whole()
			}
			_, _ = d.ReadToken()
			return out
		case '[':
			out := []any{}
			for d.PeekKind() != ']' {
				out = append(out, whole())
			}
			_, _ = d.ReadToken()
			return out
		case '"':
			return k.String()
		case 't', 'f':
			return k.Bool()
		}
		return nil
	}
	out := whole()
	if len(numbers) > 0 {
		t.Errorf("%d numbers are left over", len(numbers))
	}
	return out
}

// Whatever is shown of the demo's films is the same as a form with its numbers and as JSON, which the library writes.
func TestAFormWithItsNumbersIsTheJSON(t *testing.T) {
	s := session.New()
	for _, f := range library.FontFiles() {
		data, err := fs.ReadFile(library.Fonts(), f.File)
		if err == nil {
			err = s.AddFont(f.Family, f.Weight, f.Italic, data)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	for _, p := range []*doc.Project{demo.Opener(strings.Repeat("b", 64), &doc.Media{Name: "sky.jpg", Width: 1920, Height: 1080}), demo.Post(), demo.Reel(), demo.Talk(), demo.Drawings()} {
		raw, err := p.Write()
		if err == nil {
			err = s.Open(raw)
		}
		if err != nil {
			t.Fatal(err)
		}
		for i, scene := range s.Shown.Doc.Film.Scenes {
			m := scope.Moment{Rest: true, Scene: i}
			rows := s.Rows(m)
			var threads []string
			for _, r := range rows {
				threads = append(threads, r.Thread)
			}
			shown := []any{s.FilmView(), rows, s.ManyView(m, threads), s.OverlayView(m, threads), s.BackgroundLine(m), scene, p.Film.Scenes[i].Layers}
			for _, id := range threads {
				shown = append(shown, s.Selection(m, []string{id}), s.OverlayView(m, []string{id}))
			}
			for _, v := range shown {
				text, err := doc.Encode(v)
				if err != nil {
					t.Fatal(err)
				}
				var want any
				if err := json.Unmarshal(text, &want); err != nil {
					t.Fatal(err)
				}
				if got := filled(t, v); !reflect.DeepEqual(got, want) {
					g, _ := json.Marshal(got)
					w, _ := json.Marshal(want)
					t.Fatalf("%s, scene %d: %T is\n%.900s\nnot\n%.900s", p.Name, i, v, g, w)
				}
			}
		}
	}
}

// Keys that are indices come first, by their number, as ECMAScript walks an object; text keeps what it says; values that are JSON already,
// and what is left away, are as the library has them.
func TestWhatIsWritten(t *testing.T) {
	var w plain.Writer
	for _, c := range []struct {
		v       any
		form    string
		numbers []float64
	}{
		{map[string]int{"b": 1, "10": 2, "9": 3, "01": 4}, `{"9":0,"10":0,"01":0,"b":0}`, []float64{3, 2, 4, 1}},
		{"a \"line\"\n\xff", `"a \"line\"\n` + "\uFFFD" + `"`, nil},
		{jsontext.Value(`{"b": [1, "x \" 7", null, true], "a": -2.5e-3}`), `{"b":[0,"x \" 7",null,true],"a":0}`, []float64{1, -2.5e-3}},
		{jsontext.Value(`{"b": 1, "7": 2}`), `{"7":0,"b":0}`, []float64{2, 1}},
		{[]*int{nil}, `[null]`, nil},
		{[2]float64{math.Inf(1), math.Copysign(0, -1)}, `[0,0]`, []float64{math.Inf(1), math.Copysign(0, -1)}},
		{struct {
			A int      `json:"a,omitzero"`
			B []string `json:"b,omitempty"`
			C []string `json:"c"`
			D string   `json:"-"`
		}{}, `{"c":[]}`, nil},
		{nil, `null`, nil},
	} {
		form, numbers, err := w.Write(c.v)
		if err != nil || string(form) != c.form || len(numbers) != len(c.numbers) || len(numbers) > 0 && !reflect.DeepEqual(numbers, c.numbers) {
			t.Errorf("%v is %s with %v (%v), not %s with %v", c.v, form, numbers, err, c.form, c.numbers)
		}
	}
}
