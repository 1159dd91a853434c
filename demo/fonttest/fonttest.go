// Package fonttest makes font files for tests, of the fonts that ship.
package fonttest

import (
	"bytes"
	"encoding/binary"
	"io/fs"
	"testing"
	"unicode/utf16"

	"capstan/core/typeface"
	"capstan/library"
)

// Quill is a font whose family is called Quilly and whose letters are Bungee's. allows is what its maker allows (OS/2, fsType).
func Quill(t testing.TB, allows uint16) []byte {
	t.Helper()
	data, err := fs.ReadFile(library.Fonts(), "bungee-latin-400-normal.woff")
	if err != nil {
		t.Fatal(err)
	}
	f, err := typeface.Take(data)
	if err != nil {
		t.Fatal(err)
	}
	out := bytes.ReplaceAll(f.Data, []byte("Bungee"), []byte("Quilly"))
	out = bytes.ReplaceAll(out, wide("Bungee"), wide("Quilly"))
	at := bytes.Index(out, []byte("OS/2"))
	binary.BigEndian.PutUint16(out[binary.BigEndian.Uint32(out[at+8:])+8:], allows)
	return out
}

func wide(s string) (out []byte) {
	for _, u := range utf16.Encode([]rune(s)) {
		out = binary.BigEndian.AppendUint16(out, u)
	}
	return out
}
