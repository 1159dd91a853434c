package export_test

import (
	"archive/zip"
	"encoding/csv"
	"fmt"
	"image"
	"image/draw"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
)

// rgba reads frames of a file by ffmpeg, straight.
func rgba(t *testing.T, o delivery.Plan, arguments ...string) (list []*image.NRGBA) {
	t.Helper()
	raw, err := exec.Command("ffmpeg", append(append([]string{"-v", "error"}, arguments...), "-f", "rawvideo", "-pix_fmt", "rgba", "-")...).Output()
	if err != nil {
		t.Fatal(err)
	}
	for size := 4 * o.Width * o.Height; len(raw) >= size; raw = raw[size:] {
		list = append(list, &image.NRGBA{Pix: raw[:size], Stride: 4 * o.Width, Rect: image.Rect(0, 0, o.Width, o.Height)})
	}
	return
}

// readers read files with alpha by decoders that are not ours: libvpx and ffmpeg's ProRes, libwebp's tools, the standard library's zip and PNG.
var readers = map[string]func(t *testing.T, file string, o delivery.Plan) []*image.NRGBA{
	delivery.Clear: func(t *testing.T, file string, o delivery.Plan) []*image.NRGBA {
		return rgba(t, o, "-c:v", "libvpx-vp9", "-i", file)
	},
	delivery.ProRes: func(t *testing.T, file string, o delivery.Plan) []*image.NRGBA { return rgba(t, o, "-i", file) },
	delivery.WebP: func(t *testing.T, file string, o delivery.Plan) []*image.NRGBA {
		// webpmux takes the file apart, dwebp reads each picture; they are laid over each other as RFC 9649 has it.
		info, err := exec.Command("webpmux", "-info", file).Output()
		if err != nil {
			t.Fatal(err)
		}
		var list []*image.NRGBA
		canvas, part := image.NewNRGBA(image.Rect(0, 0, o.Width, o.Height)), filepath.Join(t.TempDir(), "part")
		n, gone := 0, image.Rectangle{}
		for line := range strings.Lines(string(info)) {
			var at string
			var w, h, x, y, ms int
			var alpha, dispose, blend string
			if _, err := fmt.Sscan(line, &at, &w, &h, &alpha, &x, &y, &ms, &dispose, &blend); err != nil || at != fmt.Sprintf("%d:", n+1) {
				continue
			}
			n++
			for _, step := range [][]string{{"webpmux", "-get", "frame", fmt.Sprint(n), file, "-o", part}, {"dwebp", "-quiet", part, "-o", part + ".png"}} {
				if out, err := exec.Command(step[0], step[1:]...).CombinedOutput(); err != nil {
					t.Fatalf("%v: %v: %s", step, err, out)
				}
			}
			draw.Draw(canvas, gone, image.Transparent, image.Point{}, draw.Src)
			box, how := image.Rect(x, y, x+w, y+h), draw.Src
			if gone = (image.Rectangle{}); dispose == "background" {
				gone = box
			}
			if blend == "yes" {
				how = draw.Over
			}
			draw.Draw(canvas, box, opened(t, part+".png"), image.Point{}, how)
			for range (ms + 20) / 40 {
				list = append(list, &image.NRGBA{Pix: slices.Clone(canvas.Pix), Stride: canvas.Stride, Rect: canvas.Rect})
			}
		}
		return list
	},
	delivery.WebPStill: func(t *testing.T, file string, o delivery.Plan) []*image.NRGBA {
		if out, err := exec.Command("dwebp", "-quiet", file, "-o", file+".png").CombinedOutput(); err != nil {
			t.Fatalf("%v: %s", err, out)
		}
		canvas := image.NewNRGBA(image.Rect(0, 0, o.Width, o.Height))
		draw.Draw(canvas, canvas.Rect, opened(t, file+".png"), image.Point{}, draw.Src)
		return []*image.NRGBA{canvas}
	},
	delivery.Frames: func(t *testing.T, file string, o delivery.Plan) (list []*image.NRGBA) {
		z, err := zip.OpenReader(file)
		if err != nil {
			t.Fatal(err)
		}
		defer z.Close()
		last := z.File[len(z.File)-1]
		r, err := last.Open()
		if err != nil {
			t.Fatal(err)
		}
		rows, err := csv.NewReader(r).ReadAll()
		if err != nil || len(rows) != len(z.File) || rows[2][1] != "40" || rows[1][0] != z.File[0].Name {
			t.Fatalf("%s: %v, %v", last.Name, rows, err)
		}
		for _, f := range z.File[:len(z.File)-1] {
			r, err := f.Open()
			if err != nil {
				t.Fatal(err)
			}
			img, err := png.Decode(r)
			if err != nil {
				t.Fatal(err)
			}
			list = append(list, img.(*image.NRGBA))
		}
		return
	},
}

func opened(t *testing.T, name string) image.Image {
	t.Helper()
	f, err := os.Open(name)
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	img, err := png.Decode(f)
	if err != nil {
		t.Fatal(err)
	}
	return img
}

// What is clear and half clear stays so in every format that can hold it, read back by decoders that are not ours: the cover, and the colour as much as
// it covers. What one of them holds exactly is exact.
func TestOverlaysKeepTheirAlpha(t *testing.T) {
	f := sticker(t, true)
	for format, read := range readers {
		name, o := made(t, f, format)
		list := read(t, name, o)
		if int64(len(list)) != o.Frames(f) {
			t.Errorf("%s: %d frames of %d", format, len(list), o.Frames(f))
			continue
		}
		var alpha, colour [256]int
		half := 0
		for k, img := range list {
			want := image.NewRGBA(img.Rect)
			if err := raster.NewPainter(f, nil).Paint(want, f.Player().At(motion.FrameTime(int64(k), o.RateNum, o.RateDen), frame.View{Scale: 1})); err != nil {
				t.Fatal(err)
			}
			for i := 0; i < len(img.Pix); i += 4 {
				a := int(want.Pix[i+3])
				if a > 0 && a < 255 {
					half++
				}
				alpha[far(int(img.Pix[i+3]), a)]++
				for c := range 3 {
					colour[far(int(img.Pix[i+c])*int(img.Pix[i+3])/255, int(want.Pix[i+c]))]++
				}
			}
		}
		am, cm := worst(alpha), worst(colour)
		t.Logf("%s: of 1,000 values 999 are within %d of the cover and %d of the colour", format, am, cm)
		most := map[string][2]int{delivery.Clear: {12, 40}, delivery.ProRes: {2, 24}, delivery.WebP: {0, 40}, delivery.WebPStill: {0, 40}, delivery.Frames: {0, 1}}[format]
		if am > most[0] || cm > most[1] || half < 1000 {
			t.Errorf("%s: cover within %d, colour within %d, %d half-clear pixels", format, am, cm, half)
		}
	}
}

func far(a, b int) int { return max(a-b, b-a) }

// worst is within what 999 of 1,000 lie.
func worst(count [256]int) int {
	all := 0
	for _, n := range count {
		all += n
	}
	left := all * 999 / 1000
	for d, n := range count {
		if left -= n; left <= 0 {
			return d
		}
	}
	return 255
}

// Video says what it is: its codec, pixels, size and rate, and that its colours are those of BT.709.
func TestVideoSaysWhatItIs(t *testing.T) {
	f := sticker(t, false)
	for format, want := range map[string]string{
		delivery.WebM:   "vp9,128,96,yuv420p,tv,bt709,bt709,bt709,25/1",
		delivery.AV1:    "av1,128,96,yuv420p,tv,bt709,bt709,bt709,25/1",
		delivery.Clear:  "vp9,128,96,yuv420p,tv,bt709,bt709,bt709,25/1", // alpha lies beside it in the container
		delivery.ProRes: "prores,128,96,yuva444p12le,tv,bt709,bt709,bt709,25/1",
	} {
		name, o := made(t, f, format)
		out, err := exec.Command("ffprobe", "-v", "error", "-select_streams", "v:0", "-show_entries",
			"stream=codec_name,width,height,pix_fmt,color_range,color_space,color_transfer,color_primaries,r_frame_rate", "-of", "csv=p=0", name).Output()
		if got := strings.TrimSpace(string(out)); err != nil || got != want {
			t.Errorf("%s: %s, %v; want %s", format, got, err, want)
		}
		first := rgba(t, o, "-i", name, "-frames:v", "1")[0]
		if c := first.NRGBAAt(3, 3); format != delivery.Clear && format != delivery.ProRes && (far(int(c.R), 0x3f) > 4 || far(int(c.G), 0x7f) > 4 || far(int(c.B), 0x86) > 4) {
			t.Errorf("%s: the ground is %v", format, c)
		}
	}
}
