package export_test

import (
	"image"
	"os/exec"
	"testing"

	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/likeness"
	"capstan/core/motion"
	"capstan/core/raster"
)

// Frames timed by hand are seen for as long as they were given in every file that moves: ffmpeg reads what a file shows each hundredth of a second.
func TestFramesTimedByHandAreSeenForTheirTime(t *testing.T) {
	f := sticker(t, false)
	times := []delivery.Hold{{Frame: 2, MS: 720}, {Frame: 5}, {Frame: 6}, {Frame: 9, MS: 120}}
	for _, format := range []string{delivery.GIF, delivery.APNG, delivery.MP4} {
		pause := int64(0)
		o, err := delivery.Of(f, delivery.Ask{Format: format, Frame: 40, Times: times, Pause: &pause})
		if err != nil {
			t.Fatal(err)
		}
		raw, err := exec.Command("ffmpeg", "-v", "error", "-i", madeBy(t, f, o), "-f", "rawvideo", "-pix_fmt", "rgba", "-vf", "fps=100", "-").Output()
		if err != nil {
			t.Fatal(err)
		}
		size := 4 * o.Width * o.Height
		seen := func(at int64) *image.RGBA { // ms
			return &image.RGBA{Pix: raw[int(at/10)*size:][:size], Stride: 4 * o.Width, Rect: image.Rect(0, 0, o.Width, o.Height)}
		}
		at := int64(0)
		for k := range o.Frames(f) {
			ms := int64(40)
			for _, h := range times {
				if h.Frame == k {
					ms = h.MS
				}
			}
			if ms == 0 {
				continue
			}
			img := image.NewRGBA(image.Rect(0, 0, o.Width, o.Height))
			if err := raster.NewPainter(f, nil).Paint(img, f.Player().At(motion.Millis(40*k), frame.View{Scale: float64(o.Width) / float64(f.Doc.Film.Width)})); err != nil {
				t.Fatal(err)
			}
			for _, when := range []int64{at + 10, at + ms - 20} {
				if s := likeness.SSIM(img, seen(when)); s < 0.97 {
					t.Errorf("%s, at %d ms, frame %d is %.3f like it", format, when, k, s)
				}
			}
			at += ms
		}
		if got := int64(len(raw)/size) * 10; got < at-40 || got > at+40 {
			t.Errorf("%s lasts %d ms, want %d", format, got, at)
		}
	}
}
