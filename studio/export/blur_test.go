package export_test

import (
	"image"
	"os/exec"
	"testing"

	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
)

// A frame with motion blur is the mean of what is painted at its moments, worked out here anew; ffmpeg reads it from an animated PNG. Where nothing
// moves, and without a shutter, frames are as they were.
func TestMotionBlurIsTheMeanOfItsMoments(t *testing.T) {
	f := sticker(t, true)
	o, err := delivery.Of(f, delivery.Ask{Format: delivery.APNG, Shutter: 180, Samples: 4})
	if err != nil {
		t.Fatal(err)
	}
	file := madeBy(t, f, o)
	raw, err := exec.Command("ffmpeg", "-v", "error", "-i", file, "-f", "rawvideo", "-pix_fmt", "rgba", "-r", "25", "-").Output()
	if err != nil {
		t.Fatal(err)
	}
	size := 4 * o.Width * o.Height
	if int64(len(raw)) != int64(size)*o.Frames(f) {
		t.Fatalf("%d bytes", len(raw))
	}
	differs := 0
	for k := range o.Frames(f) {
		sums := make([]int, size)
		var sharp []uint8
		for i := range 4 {
			img := image.NewRGBA(image.Rect(0, 0, o.Width, o.Height))
			ms := min(float64(k)*40+float64(i)*5, float64(f.Order.Length)) // half of 40 ms in four steps
			if err := raster.NewPainter(f, nil).Paint(img, f.Player().At(motion.Seconds(ms/1000), frame.View{Scale: 1})); err != nil {
				t.Fatal(err)
			}
			if i == 0 {
				sharp = img.Pix
			}
			for at, v := range img.Pix {
				sums[at] += int(v)
			}
		}
		own := raw[int(k)*size : int(k+1)*size]
		for at := 0; at < size; at += 4 {
			a := (sums[at+3] + 2) / 4
			if int(own[at+3]) != a {
				t.Fatalf("frame %d: a cover is %d, its moments' mean is %d", k, own[at+3], a)
			}
			for c := range 3 {
				if d := int(own[at+c])*a/255 - (sums[at+c]+2)/4; d < -1 || d > 1 {
					t.Fatalf("frame %d: a colour is %d off", k, d)
				}
			}
			if uint8(a) != sharp[at+3] {
				differs++
			}
		}
	}
	if differs < 1000 {
		t.Errorf("only %d pixels are blurred", differs)
	}
}
