package text

import (
	"reflect"
	"unsafe"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype/tables"
)

// mend writes out the glyphs of coverage tables that are given as ranges. The shaper (typesetting 0.3.5, setDigest.addRange) sums
// up what a lookup covers in three masks, and stops adding ranges as soon as one of them is full, so that it passes over glyphs
// that are covered: kerning is lost in half of all families. Lists are summed up one by one. A test holds every family that ships
// against HarfBuzz; when a later version of the library passes it without this file, it can go.
//
// It is done to what was read and not to the files, since tables of a font point into each other: to write lists into them would be to write
// GSUB and GPOS anew. The fields are not exported, so they are reached by reflection; one that is not there any more is left alone. Nothing else
// in Capstan reaches into a library like this.
func mend(f *font.Face) {
	left := 1 << 20 // glyphs written out at most: a hostile font may name all of them in every table
	for i := range f.GSUB.Lookups {
		for k, s := range f.GSUB.Lookups[i].Subtables {
			if v, ok := listed(s, &left).(tables.GSUBLookup); ok {
				f.GSUB.Lookups[i].Subtables[k] = v
			}
		}
	}
	for i := range f.GPOS.Lookups {
		for k, s := range f.GPOS.Lookups[i].Subtables {
			if v, ok := listed(s, &left).(tables.GPOSLookup); ok {
				f.GPOS.Lookups[i].Subtables[k] = v
			}
		}
	}
}

var (
	coverage  = reflect.TypeFor[tables.Coverage]()
	coverages = reflect.TypeFor[[]tables.Coverage]()
)

// listed returns a copy of a lookup with its coverage, and that of what it holds, as lists.
func listed(s any, left *int) any {
	v := reflect.New(reflect.TypeOf(s)).Elem()
	v.Set(reflect.ValueOf(s))
	if v.Kind() != reflect.Struct {
		return s
	}
	for i := range v.NumField() {
		f := v.Field(i)
		f = reflect.NewAt(f.Type(), unsafe.Pointer(f.UnsafeAddr())).Elem()
		switch {
		case f.Type() == coverage:
			if c, ok := f.Interface().(tables.Coverage2); ok {
				if l, ok := list(c, left); ok {
					f.Set(reflect.ValueOf(l))
				}
			}
		case f.Type() == coverages:
			for k := range f.Len() {
				if c, ok := f.Index(k).Interface().(tables.Coverage2); ok {
					if l, ok := list(c, left); ok {
						f.Index(k).Set(reflect.ValueOf(l))
					}
				}
			}
		case f.Kind() == reflect.Interface && !f.IsNil() && f.Elem().Kind() == reflect.Struct && v.Type().Field(i).Name == "Data":
			f.Set(reflect.ValueOf(listed(f.Interface(), left)))
		}
	}
	return v.Interface()
}

// list returns the glyphs of ranges, and false where their numbers do not go on from each other or there are too many.
func list(c tables.Coverage2, left *int) (tables.Coverage1, bool) {
	var out tables.Coverage1
	for _, r := range c.Ranges {
		if int(r.StartCoverageIndex) != len(out.Glyphs) || r.EndGlyphID < r.StartGlyphID {
			return out, false
		}
		if *left -= int(r.EndGlyphID) - int(r.StartGlyphID) + 1; *left < 0 {
			return out, false
		}
		for g := int(r.StartGlyphID); g <= int(r.EndGlyphID); g++ {
			out.Glyphs = append(out.Glyphs, tables.GlyphID(g))
		}
	}
	return out, true
}
