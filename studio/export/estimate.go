package export

import (
	"cmp"
	"compress/gzip"
	"context"
	"io"
	"os"
	"slices"

	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/raster"
	"capstan/studio/budget"
)

// Samples of a film whose size is estimated.
const (
	runs  = 8   // runs of frames, spread over it
	run   = 9   // frames of each
	whole = 100 // a film of no more frames is made whole
)

// keyEvery is how many frames a video's picture of its own is followed by at most (x264's default).
const keyEvery = 250

// Guess is how large a file will be; 0: not known.
type Guess struct {
	Bytes  int64  `json:"bytes"`
	Packed int64  `json:"packed"` // as servers send it, where they pack such files
	Parts  []Part `json:"parts"`  // what makes it large, where that is known, the largest first
}

// Part is what a file is made of in part.
type Part struct {
	Words string `json:"words"`
	Bytes int64  `json:"bytes"`
}

// Weigh is Estimate, and says what makes a web piece large: that is made whole.
func Weigh(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options) (Guess, error) {
	if !delivery.Formats[o.Format].Piece {
		bytes, err := Estimate(ctx, f, pictures, o)
		return Guess{Bytes: bytes, Parts: []Part{}}, err
	}
	if err := o.Check(f); err != nil {
		return Guess{}, err
	}
	t := &task{film: f, pictures: pictures, o: o, progress: func(int64, int64) {}, shows: o.Sequence(f)}
	made, err := t.piece(ctx)
	if err != nil {
		return Guess{}, err
	}
	text := pieceText(made, o)
	small := &counter{}
	z := gzip.NewWriter(small)
	if _, err := io.WriteString(z, text); err != nil {
		return Guess{}, err
	}
	if err := z.Close(); err != nil {
		return Guess{}, err
	}
	w := made.Weights
	g := Guess{Bytes: int64(len(text)), Packed: small.n, Parts: []Part{}}
	for _, p := range []Part{{"pictures", int64(w.Pictures)}, {"outlines", int64(w.Outlines)}, {"moves", int64(w.Moves)}, {"what is painted frame by frame", int64(w.Painted)}} {
		if 20*p.Bytes >= g.Bytes {
			g.Parts = append(g.Parts, p)
		}
	}
	slices.SortStableFunc(g.Parts, func(a, b Part) int { return cmp.Compare(b.Bytes, a.Bytes) })
	return g, nil
}

// counter counts what is written to it.
type counter struct{ n int64 }

func (c *counter) Write(p []byte) (int, error) {
	c.n += int64(len(p))
	return len(p), nil
}

// Estimate returns how many bytes a file will have, by making a small part of it, twice: runs of frames, and the first frame of each alone. What
// the first has more is what frames cost that follow one another. A film of few frames is made whole; of frames so large that they are made alone, nothing is known: 0.
func Estimate(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options) (int64, error) {
	if err := o.Check(f); err != nil {
		return 0, err
	}
	if err := Able(o.Format); err != nil {
		return 0, err
	}
	heard := trackBytes(f, o)
	if delivery.Formats[o.Format].Heard {
		return heard, nil // of captions, which are small, nothing is known
	}
	if Alone(o) {
		return 0, nil // it would take too much beside what is being made
	}
	bytes, err := estimate(ctx, f, pictures, o)
	bytes += heard
	if o.Target > 0 && delivery.Formats[o.Format].Rests {
		bytes = min(bytes, o.Target)
	}
	return bytes, err
}

// Alone reports whether frames are so large that no other export of such frames is made meanwhile.
func Alone(o Options) bool { return needs(o, 4*o.Width*o.Height) > budget.RenderCanvases }

func estimate(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options) (int64, error) {
	n := o.Sequence(f).Len()
	if n <= whole || delivery.Formats[o.Format].Piece {
		return size(ctx, f, pictures, o, nil)
	}
	var first, all []int64
	for i := range int64(runs) {
		at := i * (n - run) / (runs - 1)
		first = append(first, at)
		for k := range int64(run) {
			all = append(all, at+k)
		}
	}
	short, err := size(ctx, f, pictures, o, first)
	if err != nil {
		return 0, err
	}
	long, err := size(ctx, f, pictures, o, all)
	if err != nil {
		return 0, err
	}
	alone := float64(short) / runs
	keys := 1.0
	if delivery.Formats[o.Format].Numbers != nil && delivery.Formats[o.Format].Video {
		keys += float64((n - 1) / keyEvery)
	}
	follows := max(0, float64(long-short)/float64(len(all)-len(first)))
	return int64(keys*alone + follows*(float64(n)-keys)), nil
}

// size returns how many bytes a file of some frames of a film has; of all where frames is nil.
func size(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options, frames []int64) (int64, error) {
	tmp, err := os.CreateTemp("", "capstan-estimate-*."+delivery.Ending(o.Format))
	if err != nil {
		return 0, err
	}
	defer os.Remove(tmp.Name())
	defer tmp.Close()
	t := &task{film: f, pictures: pictures, o: o, progress: func(int64, int64) {}, shows: o.Sequence(f), some: frames}
	if err := encoders[o.Format].encode(ctx, t, tmp); err != nil {
		return 0, err
	}
	info, err := os.Stat(tmp.Name())
	if err != nil {
		return 0, err
	}
	return info.Size(), nil
}
