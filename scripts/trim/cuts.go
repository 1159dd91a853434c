package main

import (
	"bytes"
	"fmt"
)

// library is a module that the engine gets a copy of.
type library struct {
	module  string
	without map[string]bool   // folders that are left out
	stubs   map[string]string // files that are replaced, by files of the folder stub
	cuts    map[string][]cut  // by file
}

// cut is a stretch of a file from its first words to before the words that follow it, and what stands there instead.
type cut struct{ from, to, instead string }

func (c cut) of(raw []byte) ([]byte, error) {
	from := bytes.Index(raw, []byte(c.from))
	if from < 0 {
		return nil, fmt.Errorf("the library has changed: %q is not where it was", c.from)
	}
	n := bytes.Index(raw[from:], []byte(c.to))
	if n < 0 {
		return nil, fmt.Errorf("the library has changed: %q does not follow %q", c.to, c.from)
	}
	return append(append(raw[:from:from], c.instead...), raw[from+n:]...), nil
}

var libraries = []*library{
	// The engine draws outlines alone, sets all text as English, and gets no fonts but those that ship and those that were written
	// anew (core/typeface). That leaves without use: sizes of pictures in fonts (PNG, JPEG and TIFF decoders), the table of 1,600
	// other languages, coloured and painted glyphs, variations, names, and layout of Apple's own kind.
	{
		module:  "github.com/go-text/typesetting",
		without: map[string]bool{"testutils": true, "fontscan": true},
		stubs:   map[string]string{"harfbuzz/ot_language_table.go": "language.go.txt"},
		cuts: map[string][]cut{
			"font/font.go": {
				{"\tout.bitmap = selectBitmapTable(ld)", "\tout.cff, _ = loadCff(", ""},
				{"\traw, _ = ld.RawTable(ot.MustNewTag(\"fvar\"))", "\tout.upem = out.head.Upem()", ""},
				{"\tout.cff2, _ = loadCff2(", "\tout.hhea, out.hmtx, _ = loadHmtx(", ""},
				{"\tif axisCount := len(out.fvar)", "\t// layout tables\n", ""},
				{"\traw, _ = ld.RawTable(ot.MustNewTag(\"morx\"))", "\traw, _ = ld.RawTable(ot.MustNewTag(\"kern\"))", ""},
				{"\traw, _ = ld.RawTable(ot.MustNewTag(\"ankr\"))", "\treturn &out, nil\n}\n\n// see harfbuzz", ""},
			},
			"font/glyphs.go": {
				{"\t\"bytes\"\n", "\t\"encoding/binary\"", ""},
				{"\t\"image\"\n", "\n\tot \"github.com", ""},
				{"\t\"golang.org/x/image/tiff\"\n", ")\n\ntype contourPoint", ""},
				{"\tvar config image.Config", "}\n\n// return the extents", "\treturn 0, 0, 0, fmt.Errorf(\"pictures of glyphs are not read\")\n"},
			},
		},
	},
	// Documents and calls hold no points in time, and no bytes but as base 64; all their maps have names. Orders are made by
	// sort, since each generic one is 4 KB.
	{
		module:  "github.com/go-json-experiment/json",
		without: map[string]bool{"v1": true, "internal/jsontest": true, "internal/zstd": true},
		stubs:   map[string]string{"arshal_time.go": "time.go.txt"},
		cuts: map[string][]cut{
			"arshal.go": {
				{"\t\"time\"\n", "\n\t\"github.com", ""},
				{"\t_ time.Time\n", ")\n\n// export", ""},
			},
			"arshal_default.go": {
				{"\t\"encoding/base32\"\n", "\t\"encoding/base64\"", ""},
				{"\t\"encoding/hex\"\n", "\t\"errors\"", ""},
				{"\t\"strings\"\n", "\t\"sync\"", ""},
				{"\tappendEncodeBase16 ", "\tappendEncodeBase64 ", ""},
				{"\tencodedLenBase16 ", "\tencodedLenBase64 ", ""},
				{"\tappendDecodeBase16 ", "\tappendDecodeBase64 ", ""},
				{"\t\t\tcase \"base32\":", "\t\t\tcase \"array\"", ""},
				{"\t\t\tcase \"base32\":", "\t\t\tcase \"array\"", ""},
				{"\t\t\t\ttype member struct", "\t\t\t}\n\t\t}\n\t\tif err := enc.WriteToken(jsontext.EndObject)", "\t\t\t\treturn errors.ErrUnsupported\n"},
			},
			"fields.go": {
				{"\t\"io\"\n", "\t\"slices\"", "\t\"io\"\n\t\"reflect\"\n\t\"sort\"\n"},
				{"\tslices.SortStableFunc(allFields", "\tfor len(allFields) > 0", `	sort.SliceStable(allFields, func(i, k int) bool {
		x, y := allFields[i], allFields[k]
		return cmp.Or(
			strings.Compare(x.name, y.name),
			cmp.Compare(len(x.index), len(y.index)),
			boolsCompare(!x.hasName, !y.hasName)) < 0
	})
`},
				{"\tslices.SortFunc(flattened", "\tfor i := range flattened", "\tsort.SliceStable(flattened, func(i, k int) bool { return flattened[i].id < flattened[k].id })\n"},
				{"\tslices.SortFunc(flattened", "\n\t// Compute the mapping", "\tsort.SliceStable(flattened, func(i, k int) bool { return slices.Compare(flattened[i].index, flattened[k].index) < 0 })\n"},
				{"\t\t\tslices.SortFunc(fields", "\t\t\tfs.byFoldedName", "\t\t\tsort.SliceStable(fields, func(i, k int) bool { return fields[i].id < fields[k].id })\n"},
			},
			"jsontext/value.go": {
				{"\t\"slices\"\n", "\t\"sync\"", "\t\"sort\"\n"},
				{"\t\tslices.SortFunc(*members", "\t\tfirstBufferAfterSorting", "\t\tsort.SliceStable(*members, func(i, k int) bool { return objectMember.Compare((*members)[i], (*members)[k]) < 0 })\n"},
			},
		},
	},
}
