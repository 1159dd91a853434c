package export

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"image"
	"image/draw"
	imagegif "image/gif"
	"image/png"
	"io"
	"os"
	"os/exec"
	"strconv"

	"capstan/core/delivery"
	"capstan/core/likeness"
	"capstan/core/motion"
	"capstan/core/words"
	"capstan/studio/store"

	webpread "github.com/kovidgoyal/imaging/webp"
)

// Compared is a frame of a file beside what the page shows at the same time.
type Compared struct {
	At         int64   `json:"at"`   // ms of the film
	SSIM       float64 `json:"ssim"` // structural similarity of luma, 1: alike
	File, Page []byte  `json:"-"`    // PNGs
}

// Compare holds frame k of a finished export to the film as it was when it was asked for.
func (q *Queue) Compare(ctx context.Context, id string, k int64) (*Compared, error) {
	e, err := q.store.Export(id)
	if err != nil {
		return nil, err
	}
	if e.State != store.Done {
		return nil, words.New("not-found", "file yet")
	}
	film, o, err := q.planned(e)
	if err != nil {
		return nil, err
	}
	o.Width, o.Height, o.RateNum, o.RateDen = e.Width, e.Height, e.RateNum, e.RateDen // as it was made, for a target, too
	shows := o.Sequence(film)
	if k < 0 || k >= shows.Len() {
		return nil, words.New("export.compare", shows.Len())
	}
	v, at := &Compared{At: o.From}, motion.Millis(o.From)
	if !delivery.Formats[o.Format].Still {
		v.At += 1000 * shows.Frame(k) * o.RateDen / o.RateNum
		at = motion.FrameTime(shows.Frame(k), o.RateNum, o.RateDen).Add(o.From)
	}
	t := &task{film: film, pictures: q.files.Pixels, o: o}
	page, err := t.paint(ctx, at, o.Width, o.Height)
	if err != nil {
		return nil, err
	}
	made, err := frameOf(ctx, q.File(e), o, shows, k)
	if err != nil {
		return nil, err
	}
	if made.Bounds().Dx() != o.Width || made.Bounds().Dy() != o.Height {
		return nil, wrong("%v instead of %d x %d", made.Bounds(), o.Width, o.Height)
	}
	// What is clear is compared on the colour that is under it.
	on := func(m image.Image) *image.RGBA {
		out := image.NewRGBA(image.Rect(0, 0, o.Width, o.Height))
		r, g, b, _ := delivery.Matte(film).Bytes()
		for i := 0; i < len(out.Pix); i += 4 {
			out.Pix[i], out.Pix[i+1], out.Pix[i+2], out.Pix[i+3] = r, g, b, 255
		}
		draw.Draw(out, out.Rect, m, m.Bounds().Min, draw.Over)
		return out
	}
	v.SSIM = likeness.SSIM(on(page), on(made))
	if v.File, err = packed(made); err != nil {
		return nil, err
	}
	v.Page, err = packed(page)
	return v, err
}

func packed(m image.Image) ([]byte, error) {
	var b bytes.Buffer
	err := (&png.Encoder{CompressionLevel: png.BestSpeed}).Encode(&b, m)
	return b.Bytes(), err
}

// frameOf decodes frame k of a file by a decoder that is not ours.
func frameOf(ctx context.Context, file string, o Options, shows delivery.Sequence, k int64) (image.Image, error) {
	switch o.Format {
	case delivery.PNG, delivery.JPEG:
		raw, err := os.ReadFile(file)
		if err != nil {
			return nil, err
		}
		m, _, err := image.Decode(bytes.NewReader(raw))
		return m, err
	case delivery.GIF:
		return shownOfGIF(file, (shows.Begins(k, o.RateNum, o.RateDen)+shows.Begins(k+1, o.RateNum, o.RateDen))/2)
	case delivery.WebP, delivery.WebPStill:
		return shownOfWebP(file, (shows.Begins(k, o.RateNum, o.RateDen)+shows.Begins(k+1, o.RateNum, o.RateDen))/2)
	case delivery.Frames:
		return frameIn(file, int(k))
	}
	args := []string{"-hide_banner", "-loglevel", "error", "-nostdin", "-protocol_whitelist", "pipe,file"}
	if o.Format == delivery.Clear { // ffmpeg's own VP9 reads no alpha
		args = append(args, "-c:v", "libvpx-vp9")
	}
	if delivery.Formats[o.Format].Video { // the first frame that begins after half a frame before
		args = append(args, "-ss", strconv.FormatFloat(max(0, float64(k)-0.5)*float64(o.RateDen)/float64(o.RateNum), 'f', 6, 64), "-i", file)
	} else if shows.Ends() == nil { // frames that are the same picture are one in the file
		args = append(args, "-i", file, "-vf", fmt.Sprintf("fps=%d/%d,select=eq(n\\,%d)", o.RateNum, o.RateDen, k))
	} else { // what is shown a ms after it begins
		args = append(args, "-i", file, "-vf", fmt.Sprintf("fps=1000:round=up,select=eq(n\\,%d)", int64(shows.Begins(k, o.RateNum, o.RateDen)+1.5)))
	}
	out, err := exec.CommandContext(ctx, "ffmpeg", append(args, "-map", "0:v:0", "-frames:v", "1", "-f", "image2pipe", "-c:v", "png", "-")...).Output()
	if err != nil {
		return nil, words.Because(err, "export.compare-none")
	}
	return png.Decode(bytes.NewReader(out))
}

// shownOfGIF is what a GIF shows at a time, in ms.
func shownOfGIF(file string, at float64) (image.Image, error) {
	f, err := os.Open(file)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	g, err := imagegif.DecodeAll(f)
	if err != nil {
		return nil, wrong("%v", err)
	}
	canvas := image.NewRGBA(image.Rect(0, 0, g.Config.Width, g.Config.Height))
	ends := 0
	for i, m := range g.Image {
		if i > 0 && g.Disposal[i-1] == imagegif.DisposalBackground {
			draw.Draw(canvas, g.Image[i-1].Bounds(), image.Transparent, image.Point{}, draw.Src)
		}
		draw.Draw(canvas, m.Bounds(), m, m.Bounds().Min, draw.Over)
		if ends += g.Delay[i]; 10*float64(ends) > at {
			return canvas, nil
		}
	}
	if len(g.Image) == 0 {
		return nil, fmt.Errorf("no picture")
	}
	return canvas, nil
}

// shownOfWebP is what an animated WebP shows at a time, in ms.
func shownOfWebP(file string, at float64) (image.Image, error) {
	f, err := os.Open(file)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	w, err := webpread.DecodeAnimated(f)
	if err != nil { // it stands still
		if _, err := f.Seek(0, io.SeekStart); err != nil {
			return nil, err
		}
		return webpread.Decode(f)
	}
	canvas := image.NewNRGBA(image.Rect(0, 0, w.Config.Width, w.Config.Height))
	ends := 0.0
	for i, v := range w.Frames {
		place := func(h webpread.ANMFHeader) image.Rectangle {
			return image.Rect(0, 0, int(h.FrameWidth), int(h.FrameHeight)).Add(image.Pt(2*int(h.FrameX), 2*int(h.FrameY)))
		}
		if i > 0 && w.Frames[i-1].Header.DisposalBitSet {
			draw.Draw(canvas, place(w.Frames[i-1].Header), image.Transparent, image.Point{}, draw.Src)
		}
		how := draw.Src
		if v.Header.AlphaBlend {
			how = draw.Over
		}
		draw.Draw(canvas, place(v.Header), v.Frame, v.Frame.Bounds().Min, how)
		if ends += float64(v.Header.FrameDuration); ends > at {
			break
		}
	}
	return canvas, nil
}

// frameIn is a picture of a zip of frames.
func frameIn(file string, k int) (image.Image, error) {
	z, err := zip.OpenReader(file)
	if err != nil {
		return nil, wrong("%v", err)
	}
	defer z.Close()
	if k < 0 || k >= len(z.File)-1 {
		return nil, wrong("%d files", len(z.File))
	}
	r, err := z.File[k].Open()
	if err != nil {
		return nil, err
	}
	defer r.Close()
	return png.Decode(r)
}
