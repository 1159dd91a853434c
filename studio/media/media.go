// Package media takes pictures and fonts in: of pictures, it sniffs and bounds them, decodes them once, and writes the upright
// 8-bit PNG with its half-size mips that page and exporter both read.
package media

import (
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"image"
	"image/draw"
	"image/png"
	"io"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"capstan/core/doc"
	"capstan/core/text"
	"capstan/core/words"
	"capstan/studio/aside"
	"capstan/studio/budget"
)

// Limits of a picture.
const (
	MaxBytes  = 64 << 20
	MaxPixels = 50_000_000
)

// Folder is where media files lie: <hash>.<ext> as it came, and <hash>/<mip>.png derived from it. It is safe for
// concurrent use.
type Folder struct {
	dir     string
	mu      sync.Mutex
	cache   map[string]*image.RGBA
	order   []string              // of what is in cache, that which was read first first
	held    int                   // bytes of it
	lifting sync.Mutex            // held while a cut-out is made
	large   sync.Mutex            // held while a picture of more than budget.LargePicture pixels is taken in
	books   map[string]*text.Book // with the fonts of projects, by their hashes
}

// NewFolder returns the media in dir, which exists.
func NewFolder(dir string) *Folder {
	return &Folder{dir: dir, cache: map[string]*image.RGBA{}, books: map[string]*text.Book{}}
}

var fontExtensions = map[string]string{"font/ttf": ".ttf", "font/otf": ".otf"}

// extensions of the files that are kept as they came.
var extensions = func() []string {
	list := []string{fontExtensions["font/ttf"], fontExtensions["font/otf"]}
	for _, r := range readers {
		list = append(list, r.ext)
	}
	for _, r := range recordings {
		list = append(list, r.ext)
	}
	return list
}()

var hashForm = regexp.MustCompile(`^[0-9a-f]{64}$`)

// Take reads a picture, checks it and stores it. The name is only remembered.
func (f *Folder) Take(r io.Reader, name string) (hash string, facts *doc.Media, err error) {
	data, err := io.ReadAll(io.LimitReader(r, MaxBytes+1))
	if err != nil {
		return "", nil, err
	}
	if len(data) > MaxBytes {
		return "", nil, words.New("picture.too-large", MaxBytes>>20)
	}
	k := readerOf(data)
	if k == nil {
		return "", nil, words.New("picture.kind")
	}
	w, h, err := k.size(data)
	if err != nil {
		return "", nil, unread(err)
	}
	if w < 1 || h < 1 {
		return "", nil, words.New("picture.damaged")
	}
	if side := max(w, h); side > doc.MaxSide {
		return "", nil, words.New("picture.side", side, doc.MaxSide)
	}
	if w*h > MaxPixels {
		return "", nil, words.New("picture.pixels", w*h/1e6, MaxPixels/1_000_000)
	}
	if w*h > budget.LargePicture { // one of 16 bits a channel takes up to 12 bytes a pixel while it is taken in
		f.large.Lock()
		defer f.large.Unlock()
	}
	sum := sha256.Sum256(data)
	hash = hex.EncodeToString(sum[:])
	rgba := f.kept(hash, k.ext)
	known := rgba != nil
	if !known {
		if rgba, err = decoded(k, data); err != nil {
			return "", nil, unread(err)
		}
	}
	facts = factsOf(k, data, rgba)
	facts.Name = filepath.Base(name)
	if known {
		facts.Intake = f.readBy(hash)
		return hash, facts, nil
	}
	return hash, facts, f.store(hash, k.ext, data, rgba)
}

// factsOf is what is known of a picture that was read now, but for its name.
func factsOf(k *reader, data []byte, rgba *image.RGBA) *doc.Media {
	source, licence := credits(data)
	return &doc.Media{
		Source: source, Licence: licence, Type: k.mime, Bytes: int64(len(data)),
		Width: rgba.Rect.Dx(), Height: rgba.Rect.Dy(), Opaque: rgba.Opaque(), Moves: k.moves != nil && k.moves(data),
		Shown: shown(rgba), Intake: doc.Intake,
	}
}

// shown is the part of a picture outside of which all is clear; nil where that is all of it, or none.
func shown(m *image.RGBA) *doc.Crop {
	w, h := m.Rect.Dx(), m.Rect.Dy()
	box := image.Rectangle{}
	for y := range h {
		row := m.Pix[y*m.Stride : y*m.Stride+4*w]
		l, r := 0, w
		for l < w && row[4*l+3] == 0 {
			l++
		}
		for r > l && row[4*r-1] == 0 {
			r--
		}
		if l < r {
			box = box.Union(image.Rect(l, y, r, y+1))
		}
	}
	if box.Empty() || box == m.Rect {
		return nil
	}
	return &doc.Crop{float64(box.Min.X) / float64(w), float64(box.Min.Y) / float64(h), float64(box.Max.X) / float64(w), float64(box.Max.Y) / float64(h)}
}

// Anew reads a picture that was taken in before again, as pictures are read now: wherever it is used it looks like that then. What is known of it is
// returned but for its name.
func (f *Folder) Anew(hash string) (*doc.Media, error) {
	p, err := f.Original(hash)
	if err != nil {
		return nil, err
	}
	data, err := os.ReadFile(p)
	if err != nil {
		return nil, err
	}
	k := readerOf(data)
	if k == nil {
		return nil, words.New("picture.kind")
	}
	f.large.Lock()
	defer f.large.Unlock()
	rgba, err := decoded(k, data)
	if err != nil {
		return nil, unread(err)
	}
	if err := f.store(hash, filepath.Ext(p), data, rgba); err != nil {
		return nil, err
	}
	f.mu.Lock()
	for mip := range 17 {
		f.forget(f.derived(hash, mip))
	}
	f.mu.Unlock()
	return factsOf(k, data, rgba), nil
}

// readBy is which way a picture that is there was read by; 0 where that is not known.
func (f *Folder) readBy(hash string) int {
	data, err := os.ReadFile(filepath.Join(f.dir, hash, "intake"))
	if err != nil {
		return 0
	}
	n, err := strconv.Atoi(strings.TrimSpace(string(data)))
	if err != nil {
		return 0
	}
	return n
}

// kept is a picture that was taken in already, as it was then: it is read once, and stays as it is. It is nil for one that is not there.
func (f *Folder) kept(hash, ext string) *image.RGBA {
	if _, err := os.Stat(filepath.Join(f.dir, hash+ext)); err != nil {
		return nil
	}
	if _, err := os.Stat(f.derived(hash, 0)); err != nil {
		return nil
	}
	img, err := f.Pixels(hash, 0)
	if err != nil {
		return nil
	}
	now := time.Now()
	_ = os.Chtimes(filepath.Join(f.dir, hash+ext), now, now) // as if taken in anew; else it might be swept before it is used
	return img
}

// decoded returns a picture upright, in sRGB, premultiplied, in 8 bits a channel.
func decoded(r *reader, data []byte) (*image.RGBA, error) {
	img, err := r.read(data)
	if err != nil {
		return nil, err
	}
	out := image.NewRGBA(image.Rect(0, 0, img.Bounds().Dx(), img.Bounds().Dy()))
	draw.Draw(out, out.Rect, img, img.Bounds().Min, draw.Src)
	return out, nil
}

func (f *Folder) store(hash, ext string, data []byte, mip *image.RGBA) error {
	f.mu.Lock()
	defer f.mu.Unlock()
	if err := f.mips(hash, mip); err != nil {
		return err
	}
	if err := aside.Write(filepath.Join(f.dir, hash, "intake"), fmt.Append(nil, doc.Intake, "\n"), 0o600); err != nil {
		return err
	}
	// The original comes last: a hash with its original is complete.
	return aside.Write(filepath.Join(f.dir, hash+ext), data, 0o600)
}

// mips writes a picture and its smaller copies.
func (f *Folder) mips(hash string, mip *image.RGBA) error {
	if err := os.MkdirAll(filepath.Join(f.dir, hash), 0o700); err != nil {
		return err
	}
	// All smaller copies take a third of what the first takes: they are made meanwhile.
	write := func(m *image.RGBA, k int) error {
		data, err := encoded(m)
		if err != nil {
			return err
		}
		return aside.Write(f.derived(hash, k), data, 0o600)
	}
	first := make(chan error, 1)
	go func(m *image.RGBA) { first <- write(m, 0) }(mip)
	var failed error
	for k := 1; failed == nil && min(mip.Rect.Dx(), mip.Rect.Dy()) >= 2; k++ {
		mip = halve(mip)
		failed = write(mip, k)
	}
	return errors.Join(<-first, failed)
}

func (f *Folder) derived(hash string, mip int) string {
	return filepath.Join(f.dir, hash, fmt.Sprintf("%d.png", mip))
}

// halve averages pixels two by two, premultiplied; an odd last row or column is left out.
func halve(img *image.RGBA) *image.RGBA {
	w, h := max(1, img.Rect.Dx()/2), max(1, img.Rect.Dy()/2)
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := 0; y < h; y++ {
		a := img.Pix[2*y*img.Stride:]
		b := img.Pix[(2*y+1)*img.Stride:]
		for x := 0; x < w; x++ {
			for k := 0; k < 4; k++ {
				i := 8*x + k
				out.Pix[y*out.Stride+4*x+k] = uint8((int(a[i]) + int(a[i+4]) + int(b[i]) + int(b[i+4]) + 2) / 4)
			}
		}
	}
	return out
}

// Missing is the error for media that is not in the folder.
var Missing = words.New("picture.gone")

// Derived returns the path of a derivative; the smallest mip stands in for smaller ones. What is named is a hash, or a picture with its mask
// (doc.PictureUse.Shows), which is cut out where that has not been done yet.
func (f *Folder) Derived(hash string, mip int) (string, error) {
	base, mask := doc.Shown(hash)
	if !hashForm.MatchString(base) || mask != "" && !hashForm.MatchString(mask) || mip < 0 {
		return "", Missing
	}
	find := func() (string, bool) {
		for k := min(mip, 16); k >= 0; k-- {
			p := f.derived(hash, k)
			if _, err := os.Stat(p); err == nil {
				return p, true
			}
		}
		return "", false
	}
	if p, ok := find(); ok {
		return p, nil
	}
	if mask != "" {
		if err := f.lifted(hash); err != nil {
			return "", err
		}
		if p, ok := find(); ok {
			return p, nil
		}
	} else if f.Has(hash) { // it may have been in the bin
		if p, ok := find(); ok {
			return p, nil
		}
	}
	return "", Missing
}

// Original returns the path of the file as it came.
func (f *Folder) Original(hash string) (string, error) {
	if hashForm.MatchString(hash) {
		for _, ext := range extensions {
			p := filepath.Join(f.dir, hash+ext)
			if _, err := os.Stat(p); err == nil {
				return p, nil
			}
		}
		if p, ok := f.fromBin(hash); ok {
			return p, nil
		}
	}
	return "", Missing
}

// forget drops a decoded derivative.
func (f *Folder) forget(path string) {
	if img := f.cache[path]; img != nil {
		f.held -= len(img.Pix)
		delete(f.cache, path)
		f.order = slices.DeleteFunc(f.order, func(p string) bool { return p == path })
	}
}

// Pixels returns a derivative decoded and premultiplied; it is shared and must not be changed.
func (f *Folder) Pixels(hash string, mip int) (*image.RGBA, error) {
	p, err := f.Derived(hash, mip)
	if err != nil {
		return nil, err
	}
	f.mu.Lock()
	defer f.mu.Unlock()
	if img := f.cache[p]; img != nil {
		return img, nil
	}
	file, err := os.Open(p)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	decoded, err := png.Decode(file)
	if err != nil {
		return nil, err
	}
	img, ok := decoded.(*image.RGBA)
	if !ok {
		img = image.NewRGBA(decoded.Bounds())
		draw.Draw(img, img.Rect, decoded, decoded.Bounds().Min, draw.Src)
	}
	for f.held += len(img.Pix); f.held > budget.Derivatives && len(f.order) > 0; {
		f.forget(f.order[0])
	}
	f.cache[p] = img
	f.order = append(f.order, p)
	return img, nil
}
