package variant_test

import (
	"encoding/csv"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/variant"
	"capstan/core/words"
	"capstan/library"
)

// Any table that encoding/csv writes is read as it was: with any separator, either line end, quotes, breaks in cells, and a byte-order mark or none.
func TestTablesAreReadAsTheyWereWritten(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 9))
	parts := []string{"a", "Quay", "“é”", ",", ";", "\t", "\"", "\n", " ", "=SUM(A1)", "名", "'", "+49", "#8ec6da", "-"}
	for i := range 200 {
		columns, rows := 1+r.IntN(8), r.IntN(20)
		want := &doc.Table{Columns: []string{}, Rows: [][]string{}}
		for k := range columns {
			want.Columns = append(want.Columns, fmt.Sprint("column ", k))
		}
		for range rows {
			row := make([]string, columns)
			for k := range row {
				for range r.IntN(5) {
					row[k] += parts[r.IntN(len(parts))]
				}
			}
			if strings.TrimSpace(strings.Join(row, "")) != "" {
				want.Rows = append(want.Rows, row)
			}
		}
		var b strings.Builder
		if i%3 == 0 {
			b.WriteString("\ufeff")
		}
		w := csv.NewWriter(&b)
		w.Comma = []rune{',', ';', '\t'}[i%3]
		if columns == 1 {
			w.Comma = ',' // one column says nothing of what parts it
		}
		w.UseCRLF = i%2 == 0
		if err := w.WriteAll(append([][]string{want.Columns}, want.Rows...)); err != nil {
			t.Fatal(err)
		}
		got, err := variant.Read(b.String())
		if err != nil || !got.Equal(want) {
			t.Fatalf("%q\nis read as %q, %v\nand is %q", b.String(), got, err, want)
		}
	}
}

// Odd tables are read as spreadsheets read them, or refused in words.
func TestOddTables(t *testing.T) {
	cells := func(n int) string { return strings.Repeat("x\n", n) }
	for _, of := range []struct{ text, want string }{
		{"a,b\n1,2", "[a b] [[1 2]]"},
		{"a;b\n1,5;2", "[a b] [[1,5 2]]"},
		{"a\tb\r\n1\t2\r\n", "[a b] [[1 2]]"},
		{"a,b\r1,2\r", "[a b] [[1 2]]"},
		{"sep=;\na,x;b\n1;2", "[a,x b] [[1 2]]"},
		{"\ufeffa,b\n\n1,2\n,\n", "[a b] [[1 2]]"},
		{" a , b \n1", "[a b] [[1 ]]"},
		{"a,,b\n1,,2", "[a b] [[1 2]]"},
		{"a,b\n1,2,,", "[a b] [[1 2]]"},
		{"a\n\"one\r\ntwo\"", "[a] [[one\ntwo]]"},
		{"a\n=1+1\n@x", "[a] [[=1+1] [@x]]"},
		{"a", "[a] []"},
		{"", "table.empty"}, {"\n \n,,\n", "table.empty"}, {"\ufeff", "table.empty"},
		{"a,\n1,2", "table.unnamed"}, {"a,A \n1,2", "table.twice"}, {"a,b\n1,2,3", "table.row-long"},
		{"a,b\n\"1,2", "table.quote"}, {"a,b\n1\"2,3", "table.quote"}, {"a\n\"1\"2", "table.quote"},
		{"a\n\xff\xfe", "table.encoding"}, {"\xff\xfea\x00", "table.encoding"}, {"a\x00\nb", "table.encoding"},
		{strings.Repeat("a", 81) + "\n1", "table.long"}, {"a\n" + strings.Repeat("é", 2001), "table.long"},
		{"a\n" + cells(1001), "table.rows"}, {"a\n" + cells(10000), "table.rows"}, {"a,b" + strings.Repeat("c,d", 30) + "\n", "table.twice"},
		{"n" + strings.Join(slices.Collect(func(yield func(string) bool) {
			for i := range 41 {
				if !yield(fmt.Sprint(i)) {
					return
				}
			}
		}), ",n"), "table.columns"},
		{"a\n" + strings.Repeat("x", variant.MaxText), "table.large"},
	} {
		got, err := variant.Read(of.text)
		says := ""
		if err == nil {
			says = fmt.Sprint(got.Columns, " ", got.Rows)
		} else if f, ok := err.(*words.Fault); ok {
			says = f.Key
		}
		if says != of.want {
			t.Errorf("%.60q: %s, not %s (%v)", of.text, says, of.want, err)
		}
	}
	if got, err := variant.Read("a\n" + cells(1000)); err != nil || len(got.Rows) != 1000 {
		t.Errorf("a thousand rows: %v", err)
	}
}

func FuzzRead(f *testing.F) {
	f.Add("a,b\n1,\"2\"\n")
	f.Fuzz(func(t *testing.T, text string) {
		got, err := variant.Read(text)
		if err != nil {
			if _, ok := err.(*words.Fault); !ok {
				t.Errorf("%v is not in words", err)
			}
			return
		}
		p := doc.NewProject("p", "P", 100, 100, "s")
		p.Table = got
		if err := p.Validate(); err != nil {
			t.Errorf("%q is read as what may not be kept: %v", text, err)
		}
	})
}

// card is a project of two scenes in which words lie on a card, a picture, a role, and a text in a box of its own.
func card() *doc.Project {
	p := doc.NewProject("p", "Card", 800, 600, "one")
	p.Media = map[string]*doc.Media{}
	for k, name := range []string{"quay.png", "Gull.JPG"} {
		p.Media[strings.Repeat(fmt.Sprint(k), 64)] = &doc.Media{Name: name, Type: "image/png", Bytes: 1, Width: 200 + 200*k, Height: 200}
	}
	scene := func(id string) *doc.Scene {
		s := doc.NewScene(id, id)
		s.Stay, s.Roles = 1000, map[string]string{"ground": "#8ec6da"}
		s.Background = doc.Fill{Kind: doc.Solid, Colour: "#8ec6da", Role: "ground"}
		text := func(thread, words string, x, y float64) *doc.Layer {
			return &doc.Layer{ID: id + thread, Thread: thread, Name: thread, Kind: doc.TextKind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Place: doc.Place{X: x, Y: y},
				Text: &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: words, Family: "Archivo", Weight: 600, Size: 40}}}}
		}
		plate := &doc.Layer{ID: id + "plate", Thread: "plate", Name: "Plate", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#f3dca6"}, Place: doc.Place{X: 400, Y: 300, W: 300, H: 90}}
		shown := &doc.Layer{ID: id + "shown", Thread: "shown", Name: "Shown", Kind: doc.Picture, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Column: "Photo", Place: doc.Place{X: 120, Y: 120, W: 100, H: 100}, Picture: &doc.PictureUse{Media: strings.Repeat("0", 64)}}
		box := text("box", "small", 100, 400)
		box.Column, box.Text.Wrap, box.Text.Room, box.Place.W, box.Place.H = "box", true, doc.FixedRoom, 160, 60
		day := text("day", "Saturday", 400, 275)
		edge := text("edge", "edge", 700, 20)
		edge.Column = "edge"
		s.Layers = []*doc.Layer{plate, shown, box, day, edge}
		return s
	}
	p.Film.Scenes = []*doc.Scene{scene("one"), scene("two")}
	p.Film.Scenes[0].Layers[3].Column = "Day" // of the second scene, the thread says so
	return p
}

// Cells come into all that has their name, the project stays as it is, and what cannot be done is told.
func TestRowsFillWhatTheyName(t *testing.T) {
	p := card()
	table, err := variant.Read("day,photo,ground,nothing,box\n Sunday ,gull,#123456,x,fits\nSunday,owl,green?,x,\n")
	if err != nil {
		t.Fatal(err)
	}
	p.Table = table
	before, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	q, troubles, err := variant.Fill(p, 1)
	if err != nil || len(troubles) != 0 {
		t.Fatalf("%v %v", troubles, err)
	}
	for _, s := range q.Film.Scenes {
		if s.Roles["ground"] != "#123456" {
			t.Errorf("%s: its ground is %s", s.ID, s.Roles["ground"])
		}
		if got := s.Layers[3].Text; got.String() != " Sunday " || got.Runs[0].Size != 40 || got.Runs[0].Weight != 600 {
			t.Errorf("%s says %v", s.ID, got.Runs)
		}
		if u := s.Layers[1].Picture; u.Media != strings.Repeat("1", 64) || u.Crop == nil || *u.Crop != (doc.Crop{0.25, 0, 0.75, 1}) {
			t.Errorf("%s shows %v", s.ID, u)
		}
	}
	if after, err := p.Write(); err != nil || string(after) != string(before) {
		t.Errorf("the project itself was changed, %v", err)
	}
	_, troubles, err = variant.Fill(p, 2)
	var told []string
	for _, v := range troubles {
		told = append(told, v.Column)
	}
	slices.Sort(told)
	if err != nil || fmt.Sprint(told) != "[box ground photo]" {
		t.Errorf("%v, %v", troubles, err)
	}
	if _, _, err := variant.Fill(p, 3); !words.Is(err, "table.variant") {
		t.Errorf("a third row of two: %v", err)
	}
	names := variant.Names(p)
	if got := fmt.Sprint(names); got != "[{Photo picture quay.png} {box words small} {Day words Saturday} {edge words edge} {ground role #8ec6da}]" {
		t.Errorf("its names are %s", got)
	}
	if columns, without := variant.Fills(p); fmt.Sprintf("%q %v", columns, without) != `["words" "picture" "colour role" "" "words"] [{edge words edge}]` {
		t.Errorf("its columns fill %q, without are %v", columns, without)
	}
	if s := variant.Starts(p); fmt.Sprint(s.Columns, s.Rows) != "[Photo box Day edge ground] [[quay.png small Saturday edge #8ec6da]]" {
		t.Errorf("its table starts as %v", s)
	}
}

// Words that do not fit where the film's own did are told, with where and by how much; those that do are not.
func TestWordsThatDoNotFitAreTold(t *testing.T) {
	fonts, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	for _, of := range []struct{ column, cell, want string }{
		{"day", "Sunday", ""},
		{"day", "Every Saturday in May", "“Plate”"},
		{"edge", "far beyond all edges", "the page"},
		{"box", "a little", ""},
		{"box", "many more words than this small box has room for", "higher than their box"},
	} {
		p := card()
		p.Table = &doc.Table{Columns: []string{of.column}, Rows: [][]string{{of.cell}}}
		q, _, err := variant.Fill(p, 1)
		if err != nil {
			t.Fatal(err)
		}
		a, err := frame.Compile(p, frame.Assets{Fonts: fonts}, nil)
		if err != nil {
			t.Fatal(err)
		}
		b, err := frame.Compile(q, frame.Assets{Fonts: fonts}, nil)
		if err != nil {
			t.Fatal(err)
		}
		got := variant.Fits(a, b)
		if of.want == "" && len(got) > 0 || of.want != "" && (len(got) == 0 || !strings.Contains(got[0].Says, of.want)) {
			t.Errorf("%q as %s: %v, not %q", of.cell, of.column, got, of.want)
		}
	}
}
