package morph_test

import (
	"bytes"
	"encoding/json"
	"io/fs"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/text"
	"capstan/library"
)

// sets are where the icons of two npm sets lie, development packages of web/.
var sets = []string{"../../web/node_modules/bootstrap-icons/icons", "../../web/node_modules/@mdi/svg/svg"}

var pathData = regexp.MustCompile(` d="([^"]+)"`)

// node lets a script of testdata answer.
func node(t testing.TB, script string, answer, asked any) {
	t.Helper()
	in, err := json.Marshal(asked)
	if err != nil {
		t.Fatal(err)
	}
	cmd := exec.Command("node", "testdata/"+script)
	cmd.Stdin, cmd.Stderr = bytes.NewReader(in), os.Stderr
	raw, err := cmd.Output()
	if err == nil {
		err = json.Unmarshal(raw, answer)
	}
	if err != nil {
		t.Fatalf("%s: %v; make deps installs what it needs", script, err)
	}
}

// corpus are 200 outlines, each about 100 wide: 70 icons of each of two sets, 40 letters, 20 shapes combined of two.
func corpus(t testing.TB) (list []*geom.Path) {
	t.Helper()
	r := rand.New(rand.NewPCG(28, 1))
	add := func(p *geom.Path) {
		b := p.Bounds()
		k := 100 / max(b.W(), b.H())
		list = append(list, mapped(p, geom.Scale(k, k).Mul(geom.Translate(b.Centre().Mul(-1)))))
	}
	var icons []string
	for _, dir := range sets {
		files, err := filepath.Glob(filepath.Join(dir, "*.svg"))
		if err != nil || len(files) < 1000 {
			t.Fatalf("%d icons in %s; make deps installs them", len(files), dir)
		}
		for range 70 {
			data, err := os.ReadFile(files[r.IntN(len(files))])
			if err != nil {
				t.Fatal(err)
			}
			all := ""
			for _, m := range pathData.FindAllStringSubmatch(string(data), -1) {
				all += m[1]
			}
			icons = append(icons, all)
		}
	}
	node(t, "plain.mjs", &icons, icons)
	for _, d := range icons {
		add(outline(t, d))
	}
	b := &text.Book{}
	for _, name := range []string{"archivo-latin-800-normal.woff", "shrikhand-latin-400-normal.woff", "kalam-latin-400-normal.woff", "literata-latin-400-normal.woff"} {
		data, err := fs.ReadFile(library.Fonts(), name)
		if err != nil {
			t.Fatal(err)
		}
		family := strings.SplitN(name, "-", 2)[0]
		if err := b.Add(family, 400, false, data); err != nil {
			t.Fatal(err)
		}
		for range 10 {
			v := &doc.Text{Runs: []doc.Run{{Text: string("ABCDEFGHKMNQRSWXabdeghkqs23568&"[r.IntN(31)]), Family: family, Weight: 400, Size: 100}}}
			add(text.SetIn(b, v, text.Room{}, doc.ByLetter).Pieces[0].Outlines[0].Path)
		}
	}
	basic := []string{square, disc, ring, hand, "M0 -60L50 40L-50 40Z"}
	for len(list) < 200 {
		at := func() *geom.Path {
			m := geom.Translate(geom.Point{X: r.Float64()*60 - 30, Y: r.Float64()*60 - 30}).Mul(geom.Rotate(r.Float64() * 360))
			return mapped(outline(t, basic[r.IntN(len(basic))]), m)
		}
		p, err := combine.Areas(combine.How(r.IntN(4)), combine.Area{Path: at()}, combine.Area{Path: at()})
		if err == nil && len(p.Points) > 0 {
			add(p)
		}
	}
	return
}
