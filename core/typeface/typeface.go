// Package typeface takes font files of a person's own in: TTF, OTF and WOFF files are checked as a whole and written anew, with the
// tables that setting outlines needs and no others. What comes out is safe to hand to the font library, the same bytes for the same
// font, and stays the same when it is taken in again.
package typeface

import (
	"bytes"
	"encoding/binary"
	"math"
	"sort"
	"strings"
	"unicode"

	"capstan/core/words"

	"github.com/go-text/typesetting/font"
	ot "github.com/go-text/typesetting/font/opentype"
)

// Limits of a font file.
const (
	MaxBytes    = 30 << 20  // as it comes
	MaxUnpacked = 64 << 20  // of all tables
	MaxPoints   = 100_000   // of one glyph, its parts put in
	MaxAll      = 8_000_000 // of all glyphs
)

// File is a font that was taken in.
type File struct {
	Data   []byte // written anew
	Type   string // font/ttf or font/otf
	Family string // as the file calls it
	Weight int    // 1..1000
	Italic bool
	// Stays is set where the file's maker allows that documents with it are shown and printed, but not that it is handed on in one
	// (OS/2 fsType: preview and print embedding).
	Stays bool
}

// kept are the tables that outlines and their layout are read from. Variations, hints, colours, bitmaps, signatures and the layout
// tables of Apple's are left out: a variable font stands as its default.
var kept = []string{"CFF ", "GDEF", "GPOS", "GSUB", "OS/2", "cmap", "glyf", "head", "hhea", "hmtx", "kern", "loca", "maxp", "name", "post"}

// Take reads a font file. Its faults are of the words catalogue: what the file is not, or what it does not allow.
func Take(data []byte) (*File, error) {
	if len(data) > MaxBytes {
		return nil, words.New("font.too-large", MaxBytes>>20)
	}
	if len(data) < 12 {
		return nil, words.New("font.kind")
	}
	switch string(data[:4]) {
	case "wOF2":
		return nil, words.New("font.woff2")
	case "ttcf":
		return nil, words.New("font.collection")
	case "\x00\x01\x00\x00", "true", "OTTO", "wOFF":
	default:
		return nil, words.New("font.kind")
	}
	var f *File
	var err error
	if !guarded(func() { f, err = take(data) }) {
		return nil, words.New("font.damaged")
	}
	return f, err
}

// guarded runs what reads a font, and reports false where that stumbled over what its tables say of each other.
func guarded(f func()) (ok bool) {
	defer func() { ok = recover() == nil }()
	f()
	return
}

func take(data []byte) (*File, error) {
	if err := Bounded(data); err != nil {
		return nil, err
	}
	ld, err := ot.NewLoader(bytes.NewReader(data))
	if err != nil {
		return nil, words.New("font.damaged")
	}
	tables := map[string][]byte{}
	for _, name := range kept {
		tag := ot.MustNewTag(name)
		if !ld.HasTable(tag) {
			continue
		}
		if tables[name], err = ld.RawTable(tag); err != nil {
			return nil, words.New("font.damaged")
		}
	}
	for _, name := range []string{"cmap", "head", "hhea", "hmtx", "maxp"} {
		if len(tables[name]) < 4 {
			return nil, words.New("font.damaged")
		}
	}
	if len(tables["head"]) < 54 {
		return nil, words.New("font.damaged")
	}
	f := &File{Type: "font/ttf"}
	switch {
	case tables["CFF "] != nil:
		f.Type = "font/otf"
		delete(tables, "glyf")
		delete(tables, "loca")
	case tables["glyf"] != nil && tables["loca"] != nil:
		if err := composites(tables); err != nil {
			return nil, err
		}
	default:
		return nil, words.New("font.no-outlines")
	}
	if tables["GPOS"] != nil {
		delete(tables, "kern") // GPOS is what counts then
	}
	if err := f.describe(ld, tables["OS/2"]); err != nil {
		return nil, err
	}
	f.Data = written(f.Type, tables)
	return f, readable(f.Data)
}

// describe reads what the font is called and what it allows (OpenType 1.9, OS/2: fsType, usWeightClass).
func (f *File) describe(ld *ot.Loader, os2 []byte) error {
	d, _ := font.Describe(ld, nil)
	name := strings.Map(func(r rune) rune {
		if unicode.IsControl(r) || r == unicode.ReplacementChar {
			return -1
		}
		return r
	}, d.Family)
	if r := []rune(strings.Join(strings.Fields(name), " ")); len(r) > 0 {
		f.Family = string(r[:min(len(r), 60)])
	}
	f.Weight = min(max(int(d.Aspect.Weight), 1), 1000)
	f.Italic = d.Aspect.Style == font.StyleItalic
	if len(os2) < 10 {
		return nil // old fonts that do not say: installable, as the standard has it for a zero
	}
	switch allows := binary.BigEndian.Uint16(os2[8:]); {
	case allows&0x0200 != 0: // bitmaps only
		return words.New("font.restricted", f.Family)
	case allows&0x000e == 0, allows&0x0008 != 0: // installable; editable
	case allows&0x0004 != 0:
		f.Stays = true
	default:
		return words.New("font.restricted", f.Family)
	}
	return nil
}

// readable reads every glyph that the font has.
func readable(data []byte) error {
	face, err := font.ParseTTF(bytes.NewReader(data))
	if err != nil {
		return words.New("font.damaged")
	}
	most := int(binary.BigEndian.Uint16(maxp(data)[4:]))
	all, some := 0, false
	for gid := range most {
		o, ok := face.GlyphDataOutline(font.GID(gid))
		if !ok {
			continue
		}
		some = some || len(o.Segments) > 0
		all += len(o.Segments)
		for _, s := range o.Segments {
			for _, p := range s.Args {
				if math.IsNaN(float64(p.X)) || math.IsNaN(float64(p.Y)) || math.Abs(float64(p.X)) > 1e6 || math.Abs(float64(p.Y)) > 1e6 {
					return words.New("font.damaged")
				}
			}
		}
		if len(o.Segments) > MaxPoints || all > MaxAll {
			return words.New("font.points")
		}
	}
	if !some {
		return words.New("font.no-outlines")
	}
	return nil
}

// written puts tables together as a font file (OpenType 1.9, organisation of a font).
func written(kind string, tables map[string][]byte) []byte {
	names := make([]string, 0, len(tables))
	for n := range tables {
		names = append(names, n)
	}
	sort.Strings(names)
	head := bytes.Clone(tables["head"])
	binary.BigEndian.PutUint32(head[8:], 0)
	tables["head"] = head
	n := len(names)
	log := int(math.Log2(float64(n)))
	out := make([]byte, 12, 12+16*n)
	if kind == "font/otf" {
		copy(out, "OTTO")
	} else {
		binary.BigEndian.PutUint32(out, 0x00010000)
	}
	binary.BigEndian.PutUint16(out[4:], uint16(n))
	binary.BigEndian.PutUint16(out[6:], uint16(16<<log))
	binary.BigEndian.PutUint16(out[8:], uint16(log))
	binary.BigEndian.PutUint16(out[10:], uint16(16*n-16<<log))
	at := 12 + 16*n
	for _, name := range names {
		t := tables[name]
		out = append(out, name...)
		out = binary.BigEndian.AppendUint32(out, sum(t))
		out = binary.BigEndian.AppendUint32(out, uint32(at))
		out = binary.BigEndian.AppendUint32(out, uint32(len(t)))
		at += (len(t) + 3) &^ 3
	}
	adjust := 0
	for _, name := range names {
		if name == "head" {
			adjust = len(out) + 8
		}
		out = append(out, tables[name]...)
		for len(out)%4 != 0 {
			out = append(out, 0)
		}
	}
	binary.BigEndian.PutUint32(out[adjust:], 0xB1B0AFBA-sum(out))
	return out
}

// sum adds up a table in words of 32 bits.
func sum(t []byte) (s uint32) {
	for ; len(t) >= 4; t = t[4:] {
		s += binary.BigEndian.Uint32(t)
	}
	if len(t) > 0 {
		var last [4]byte
		copy(last[:], t)
		s += binary.BigEndian.Uint32(last[:])
	}
	return s
}

// maxp finds the table of counts in a file that was written here.
func maxp(data []byte) []byte {
	for e := 12; e+16 <= len(data); e += 16 {
		if string(data[e:e+4]) == "maxp" {
			return data[binary.BigEndian.Uint32(data[e+8:]):]
		}
	}
	return make([]byte, 6)
}
