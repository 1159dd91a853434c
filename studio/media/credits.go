package media

import (
	"bytes"
	"strings"
	"unicode"
	"unicode/utf8"

	"capstan/core/doc"

	"github.com/kovidgoyal/imaging/prism/meta/autometa"
	"github.com/rwcarlsen/goexif/exif"
)

// credits are what a picture says of who made it and how it may be used: the artist and copyright of its EXIF data, or the Author, Source and Copyright
// of a PNG (PNG Specification, 11.3.3.2). Both are empty where it says nothing.
func credits(data []byte) (source, licence string) {
	defer func() { _ = recover() }() // of damaged data nothing is said
	if md, _, err := autometa.Load(bytes.NewReader(data)); err == nil && md != nil {
		if x, err := md.Exif(); err == nil && x != nil {
			read := func(name exif.FieldName) string {
				tag, err := x.Get(name)
				if err != nil {
					return ""
				}
				v, err := tag.StringVal()
				if err != nil {
					return ""
				}
				return credit(v)
			}
			source, licence = read(exif.Artist), read(exif.Copyright)
		}
	}
	if !bytes.HasPrefix(data, []byte("\x89PNG")) {
		return source, licence
	}
	said := map[string]string{}
	eachChunk(data, func(kind string, chunk []byte) bool {
		if body := chunk[8 : len(chunk)-4]; kind == "tEXt" && len(said) < 32 {
			if name, v, ok := bytes.Cut(body, []byte{0}); ok {
				said[string(name)] = credit(latin1(v))
			}
		}
		return true
	})
	if source == "" {
		source = strings.Trim(said["Author"]+", "+said["Source"], ", ")
	}
	if licence == "" {
		licence = said["Copyright"]
	}
	return credit(source), licence
}

func latin1(b []byte) string {
	out := make([]rune, len(b))
	for i, c := range b {
		out[i] = rune(c)
	}
	return string(out)
}

// credit is a line of text that can be kept: without what cannot be seen, and not longer than may be.
func credit(s string) string {
	if !utf8.ValidString(s) {
		s = latin1([]byte(s))
	}
	s = strings.Join(strings.FieldsFunc(s, func(r rune) bool { return unicode.IsControl(r) || unicode.IsSpace(r) || r == utf8.RuneError }), " ")
	if r := []rune(s); len(r) > doc.MaxCredit {
		s = string(r[:doc.MaxCredit])
	}
	return s
}
