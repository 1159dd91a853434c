package media

import (
	"crypto/sha256"
	"encoding/hex"
	"io"
	"log/slog"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/text"
	"capstan/core/typeface"
	"capstan/core/words"
	"capstan/studio/aside"
	"capstan/studio/budget"
)

// TakeFont reads a font file, checks it and stores it as it was written anew: its hash is that of what is stored. The name is
// remembered, and stands in where the font has none.
func (f *Folder) TakeFont(r io.Reader, name string) (hash string, facts *doc.Media, err error) {
	data, err := io.ReadAll(io.LimitReader(r, typeface.MaxBytes+1))
	if err != nil {
		return "", nil, err
	}
	font, err := typeface.Take(data)
	if err != nil {
		return "", nil, err
	}
	sum := sha256.Sum256(font.Data)
	hash = hex.EncodeToString(sum[:])
	name = filepath.Base(name)
	facts = &doc.Media{
		Name: name, Type: font.Type, Bytes: int64(len(font.Data)), Family: font.Family, Weight: font.Weight, Italic: font.Italic, Stays: font.Stays,
	}
	if facts.Family == "" {
		facts.Family = strings.TrimSuffix(name, filepath.Ext(name))
	}
	return hash, facts, aside.Write(filepath.Join(f.dir, hash+fontExtensions[font.Type]), font.Data, 0o600)
}

// Font returns the path of a font file that was taken in.
func (f *Folder) Font(hash string) (string, error) {
	p, err := f.Original(hash)
	if ext := filepath.Ext(p); err != nil || ext != ".ttf" && ext != ".otf" {
		return "", words.New("font.gone", hash[:min(len(hash), 8)])
	}
	return p, nil
}

// Fonts returns base with the fonts of a project's own. Files that are missing are left out: their words are set in another family, as
// the page has it. The same fonts give the same book.
func (f *Folder) Fonts(p *doc.Project, base *text.Book) *text.Book {
	var hashes []string
	for h, m := range p.Media {
		if m.IsFont() {
			hashes = append(hashes, h)
		}
	}
	if len(hashes) == 0 {
		return base
	}
	slices.Sort(hashes)
	type file struct {
		m    *doc.Media
		data []byte
	}
	var files []file
	var key strings.Builder
	for _, h := range hashes {
		path, err := f.Font(h)
		if err != nil {
			continue
		}
		data, err := os.ReadFile(path)
		if err != nil {
			slog.Error("a font file cannot be read", "hash", h, "error", err)
			continue
		}
		m := p.Media[h]
		files = append(files, file{m, data})
		key.WriteString(h + m.Family + "\n")
	}
	f.mu.Lock()
	defer f.mu.Unlock()
	if b := f.books[key.String()]; b != nil {
		return b
	}
	b := base.Copy()
	for _, v := range files {
		if err := b.Add(v.m.Family, v.m.Weight, v.m.Italic, v.data); err != nil {
			slog.Error("a font file cannot be used", "family", v.m.Family, "error", err)
		}
	}
	if len(f.books) >= budget.Books {
		clear(f.books)
	}
	f.books[key.String()] = b
	return b
}
