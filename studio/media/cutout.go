package media

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"image"
	"image/draw"
	"image/png"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"capstan/core/cutout"
	"capstan/core/doc"
	"capstan/core/words"
	"capstan/studio/aside"
)

// TakeMask stores the mask of a cut-out as a grey PNG, with its half-size mips.
func (f *Folder) TakeMask(mask *image.Gray, name string) (hash string, facts *doc.Media, err error) {
	e := png.Encoder{CompressionLevel: png.BestSpeed}
	write := func(m *image.Gray) ([]byte, error) {
		var b bytes.Buffer
		err := e.Encode(&b, m)
		return b.Bytes(), err
	}
	data, err := write(mask)
	if err != nil {
		return "", nil, err
	}
	sum := sha256.Sum256(data)
	hash = hex.EncodeToString(sum[:])
	facts = &doc.Media{Name: name, Type: "image/png", Bytes: int64(len(data)), Width: mask.Rect.Dx(), Height: mask.Rect.Dy(), Opaque: true, Covers: covers(mask).String(), Intake: doc.Intake}
	if f.Has(hash) {
		return hash, facts, nil
	}
	f.mu.Lock()
	defer f.mu.Unlock()
	if err := os.MkdirAll(filepath.Join(f.dir, hash), 0o700); err != nil {
		return "", nil, err
	}
	level := data
	for k := 0; ; k++ {
		if err := aside.Write(f.derived(hash, k), level, 0o600); err != nil {
			return "", nil, err
		}
		if min(mask.Rect.Dx(), mask.Rect.Dy()) < 2 {
			break
		}
		mask = halveGray(mask)
		if level, err = write(mask); err != nil {
			return "", nil, err
		}
	}
	if err := aside.Write(filepath.Join(f.dir, hash, "intake"), fmt.Append(nil, doc.Intake, "\n"), 0o600); err != nil {
		return "", nil, err
	}
	return hash, facts, aside.Write(filepath.Join(f.dir, hash+".png"), data, 0o600)
}

// covers is roughly where a mask keeps anything.
func covers(mask *image.Gray) *doc.Covers {
	c := &doc.Covers{}
	w, h := mask.Rect.Dx(), mask.Rect.Dy()
	for y := range h {
		for x, v := range mask.Pix[y*mask.Stride : y*mask.Stride+w] {
			if v >= 32 {
				c.Set((float64(x)+0.5)/float64(w), (float64(y)+0.5)/float64(h))
			}
		}
	}
	return c
}

func halveGray(m *image.Gray) *image.Gray {
	w, h := max(1, m.Rect.Dx()/2), max(1, m.Rect.Dy()/2)
	out := image.NewGray(image.Rect(0, 0, w, h))
	for y := range h {
		a, b := m.Pix[2*y*m.Stride:], m.Pix[(2*y+1)*m.Stride:]
		for x := range w {
			out.Pix[y*out.Stride+x] = uint8((int(a[2*x]) + int(a[2*x+1]) + int(b[2*x]) + int(b[2*x+1]) + 2) / 4)
		}
	}
	return out
}

// lifted makes what is named by a picture and a mask (doc.PictureUse.Shows), with its mips, and keeps it: it can be made again at any time.
func (f *Folder) lifted(name string) error {
	f.lifting.Lock()
	defer f.lifting.Unlock()
	if _, err := os.Stat(f.derived(name, 0)); err == nil {
		return nil // another asked for it meanwhile
	}
	hash, mask := doc.Shown(name)
	img, m, err := f.both(hash, mask)
	if err != nil {
		return err
	}
	f.mu.Lock()
	defer f.mu.Unlock()
	if err := f.mips(name, cutout.Lift(img, m)); err != nil {
		return err
	}
	return f.thinned(hash)
}

// Mask reads the mask of a cut-out.
func (f *Folder) Mask(hash string) (*image.Gray, error) {
	p, err := f.Derived(hash, 0)
	if err != nil {
		return nil, err
	}
	file, err := os.Open(p)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	m, err := png.Decode(file)
	if err != nil {
		return nil, err
	}
	grey, ok := m.(*image.Gray)
	if !ok {
		grey = image.NewGray(image.Rectangle{Max: m.Bounds().Size()})
		draw.Draw(grey, grey.Rect, m, m.Bounds().Min, draw.Src)
	}
	return grey, nil
}

// Ready reports why what a film shows cannot be shown; nil: it can. A name is a hash, or that of a picture and its mask.
func (f *Folder) Ready(name string) error {
	hash, mask := doc.Shown(name)
	if !f.Has(hash) {
		return Missing
	}
	if mask == "" {
		return nil
	}
	_, err := f.Derived(name, 0)
	return err
}

// Ground takes in what lies behind a cut-out of a picture: the hole that its mask leaves is continued from around it.
func (f *Folder) Ground(ctx context.Context, hash, mask, name string) (string, *doc.Media, error) {
	img, m, err := f.both(hash, mask)
	if err != nil {
		return "", nil, err
	}
	out, err := cutout.Ground(ctx, img, m)
	if err != nil {
		return "", nil, err
	}
	data, err := encoded(out)
	if err != nil {
		return "", nil, err
	}
	return f.Take(bytes.NewReader(data), name+".png")
}

// mostLifted is how many cut-outs of one picture are kept as they are seen: each stroke makes another, and any can be made again.
const mostLifted = 12

// thinned removes those of a picture that were made first.
func (f *Folder) thinned(hash string) error {
	entries, err := os.ReadDir(f.dir)
	if err != nil {
		return err
	}
	type made struct {
		name string
		at   time.Time
	}
	var all []made
	for _, e := range entries {
		if strings.HasPrefix(e.Name(), hash+"-") {
			if info, err := e.Info(); err == nil {
				all = append(all, made{e.Name(), info.ModTime()})
			}
		}
	}
	slices.SortFunc(all, func(a, b made) int { return b.at.Compare(a.at) })
	for _, m := range all[min(mostLifted, len(all)):] {
		f.unlift(m.name)
	}
	return nil
}

// unlift removes a cut-out as it is seen.
func (f *Folder) unlift(name string) {
	for k := range 17 {
		f.forget(f.derived(name, k))
	}
	_ = os.RemoveAll(filepath.Join(f.dir, name)) // what is left of it is taken for whole copies, or made again
}

// both are a picture and a mask of it, of one size.
func (f *Folder) both(hash, mask string) (*image.RGBA, *image.Gray, error) {
	img, err := f.Pixels(hash, 0)
	if err != nil {
		return nil, nil, err
	}
	m, err := f.Mask(mask)
	if err != nil {
		return nil, nil, err
	}
	if a, b := m.Rect.Size(), img.Rect.Size(); a != b {
		return nil, nil, words.New("cutout.size", fmt.Sprintf("%d × %d", a.X, a.Y), fmt.Sprintf("%d × %d", b.X, b.Y))
	}
	return img, m, nil
}
