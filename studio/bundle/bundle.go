// Package bundle reads and writes .capstan files: a zip of `mimetype`, `project.json` and
// `media/<sha256>.<ext>`, hashes checked (docs/format.md).
package bundle

import (
	"archive/zip"
	"bytes"
	"context"
	"errors"
	"io"
	"os"
	"path"
	"path/filepath"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/words"
	"capstan/studio/media"
)

// MediaType is what the entry mimetype holds.
const MediaType = "application/vnd.capstan+zip"

// Limits of a bundle.
const (
	MaxBytes    = 2 << 30
	MaxEntries  = 5000
	MaxDocument = doc.MaxBytes
)

// Write writes p and the media it uses to w.
func Write(w io.Writer, p *doc.Project, files *media.Folder) error {
	if err := p.Validate(); err != nil {
		return err
	}
	z := zip.NewWriter(w)
	head, err := z.CreateHeader(&zip.FileHeader{Name: "mimetype", Method: zip.Store})
	if err != nil {
		return err
	}
	if _, err := io.WriteString(head, MediaType); err != nil {
		return err
	}
	raw, err := p.Write()
	if err != nil {
		return err
	}
	body, err := z.Create("project.json")
	if err != nil {
		return err
	}
	if _, err := body.Write(raw); err != nil {
		return err
	}
	hashes := make([]string, 0, len(p.Media))
	for h, m := range p.Media {
		if !m.Stays { // what may not be handed on
			hashes = append(hashes, h)
		}
	}
	slices.Sort(hashes)
	for _, h := range hashes {
		file, err := files.Original(h)
		if err != nil {
			if p.Media[h].IsSound() {
				return words.Because(err, "bundle.sound-gone", p.Media[h].Name)
			}
			if p.Media[h].IsFont() {
				return words.Because(err, "bundle.font-gone", p.Media[h].Family)
			}
			return words.Because(err, "bundle.picture-gone", p.Media[h].Name)
		}
		if err := store(z, "media/"+h+path.Ext(file), file); err != nil {
			return err
		}
	}
	return z.Close()
}

func store(z *zip.Writer, name, file string) error {
	f, err := os.Open(file)
	if err != nil {
		return err
	}
	defer f.Close()
	w, err := z.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Store})
	if err != nil {
		return err
	}
	_, err = io.Copy(w, f)
	return err
}

// Read reads a bundle of the given size, takes its media into files and returns its project. Media whose bytes do not
// match their hash are refused; those that are in files already are not read. It stops when ctx ends.
func Read(ctx context.Context, r io.ReaderAt, size int64, files *media.Folder) (*doc.Project, error) {
	z, err := zip.NewReader(r, size)
	if err != nil {
		return nil, words.New("bundle.none")
	}
	if size > MaxBytes {
		return nil, words.New("bundle.too-large", MaxBytes>>30)
	}
	if len(z.File) > MaxEntries {
		return nil, words.New("bundle.entries", MaxEntries)
	}
	for _, f := range z.File {
		if !filepath.IsLocal(f.Name) || strings.Contains(f.Name, `\`) {
			return nil, words.New("bundle.absolute", f.Name)
		}
	}
	read := func(name string, limit int64) ([]byte, error) {
		f, err := z.Open(name)
		if err != nil {
			return nil, words.New("bundle.lacks", name)
		}
		defer f.Close()
		b, err := io.ReadAll(io.LimitReader(f, limit+1))
		if err != nil {
			return nil, words.New("bundle.damaged")
		}
		if int64(len(b)) > limit {
			return nil, words.New("bundle.part-too-large", name)
		}
		return b, nil
	}
	kind, err := read("mimetype", 100)
	if err != nil {
		return nil, err
	}
	if strings.TrimSpace(string(kind)) != MediaType {
		return nil, words.New("bundle.none")
	}
	raw, err := read("project.json", MaxDocument)
	if err != nil {
		return nil, err
	}
	p, err := doc.Read(raw)
	var bad *doc.Invalid
	if errors.As(err, &bad) {
		return nil, err
	} else if err != nil {
		return nil, words.New("bundle.document", err)
	}
	seen := map[string]bool{}
	for _, f := range z.File {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		want, ok := strings.CutPrefix(f.Name, "media/")
		if !ok {
			continue
		}
		want = strings.TrimSuffix(want, path.Ext(want))
		facts := p.Media[want]
		if facts == nil {
			continue // not used by the project
		}
		if seen[want] {
			return nil, words.New("bundle.twice", facts.Name)
		}
		seen[want] = true
		if !facts.IsFont() && files.Has(want) {
			continue
		}
		var hash string
		var found *doc.Media
		if facts.IsSound() { // as large as it may be, it is not held in memory
			in, e := f.Open()
			if e != nil {
				return nil, words.New("bundle.damaged")
			}
			hash, found, err = files.TakeSound(ctx, in, facts.Name)
			_ = in.Close()
		} else {
			data, e := read(f.Name, media.MaxBytes)
			if e != nil {
				return nil, e
			}
			take := files.Take
			if facts.IsFont() {
				take = files.TakeFont
			}
			hash, found, err = take(bytes.NewReader(data), facts.Name)
		}
		var no *words.Fault
		if errors.As(err, &no) {
			return nil, words.Because(err, "bundle.media", facts.Name, no.Happened)
		} else if err != nil {
			return nil, err
		}
		if hash != want {
			return nil, words.New("bundle.lies", facts.Name)
		}
		facts.Stays, facts.Samples, facts.Channels = found.Stays, found.Samples, found.Channels
	}
	for h, m := range p.Media {
		if _, err := files.Original(h); err != nil && !m.Stays {
			return nil, words.New("bundle.misses", m.Name)
		}
	}
	return p, nil
}
