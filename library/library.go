// Package library is what ships with Capstan: for now its font families, as the npm registry's
// @fontsource packages hold them, each with its licence.
package library

import (
	"embed"
	"fmt"
	"io/fs"
	"slices"

	"capstan/core/text"
)

//go:embed fonts
var files embed.FS

// Family is a font family that ships with Capstan.
type Family struct {
	Name    string `json:"name"`
	Kind    string `json:"kind"` // text, display, rounded, slab, hand, mono, wide (many scripts)
	Weights []int  `json:"weights"`
	Italics []int  `json:"italics,omitempty"` // weights that have an italic
	file    string
	more    []string // further files, without weight and slope
}

// Families lists the shipped families in the order they are offered.
var Families = []Family{
	{"Archivo", "text", []int{400, 500, 600, 700, 800, 900}, []int{400, 700}, "archivo", nil},
	{"Literata", "text", []int{400, 700}, []int{400}, "literata", nil},
	{"Oswald", "display", []int{400, 600}, nil, "oswald", nil},
	{"Shrikhand", "display", []int{400}, nil, "shrikhand", nil},
	{"Bungee", "display", []int{400}, nil, "bungee", nil},
	{"Abril Fatface", "display", []int{400}, nil, "abril-fatface", nil},
	{"Playfair Display", "display", []int{400, 700, 900}, []int{400}, "playfair-display", nil},
	{"Fredoka", "rounded", []int{300, 400, 500, 600, 700}, nil, "fredoka", nil},
	{"Nunito", "rounded", []int{400, 600, 800}, nil, "nunito", nil},
	{"Bitter", "slab", []int{400, 700}, nil, "bitter", nil},
	{"Caveat", "hand", []int{400, 700}, nil, "caveat", nil},
	{"Kalam", "hand", []int{400, 700}, nil, "kalam", nil},
	{"Space Mono", "mono", []int{400, 700}, nil, "space-mono", nil},
	{text.Fallback, "wide", []int{400, 700}, nil, "noto-sans", []string{
		"noto-sans-cyrillic", "noto-sans-cyrillic-ext", "noto-sans-greek", "noto-sans-greek-ext", "noto-sans-vietnamese", "noto-sans-devanagari",
		"noto-sans-hebrew-hebrew", "noto-sans-arabic-arabic", "noto-sans-armenian-armenian", "noto-sans-georgian-georgian", "noto-sans-bengali-bengali",
		"noto-sans-tamil-tamil",
	}},
}

// Ships reports whether a family of this name ships.
func Ships(name string) bool {
	return name == signs.Family || slices.ContainsFunc(Families, func(f Family) bool { return f.Name == name })
}

// FontFile is one file of a family.
type FontFile struct {
	Family string `json:"family"`
	Weight int    `json:"weight"`
	Italic bool   `json:"italic,omitempty"`
	File   string `json:"file"`
}

// signs has what is written with pictures. It is not offered: it stands in where other families lack them.
var signs = FontFile{text.Signs, 400, false, "noto-emoji-emoji-400-normal.woff"}

// FontFiles lists all shipped font files; within a weight the stack's first file comes first.
func FontFiles() []FontFile {
	var out []FontFile
	for _, f := range Families {
		add := func(w int, italic bool, slope string) {
			for _, stem := range append([]string{f.file + "-latin", f.file + "-latin-ext"}, f.more...) {
				out = append(out, FontFile{f.Name, w, italic, fmt.Sprintf("%s-%d-%s.woff", stem, w, slope)})
			}
		}
		for _, w := range f.Weights {
			add(w, false, "normal")
		}
		for _, w := range f.Italics {
			add(w, true, "italic")
		}
	}
	return append(out, signs)
}

// Fonts is the file system of the shipped font files.
func Fonts() fs.FS {
	sub, err := fs.Sub(files, "fonts")
	if err != nil {
		panic(err) // the folder is embedded above
	}
	return sub
}

// Book returns a book with every shipped font.
func Book() (*text.Book, error) {
	b := &text.Book{}
	for _, f := range FontFiles() {
		data, err := fs.ReadFile(Fonts(), f.File)
		if err != nil {
			return nil, err
		}
		if err := b.Add(f.Family, f.Weight, f.Italic, data); err != nil {
			return nil, fmt.Errorf("%s: %w", f.File, err)
		}
	}
	return b, nil
}
