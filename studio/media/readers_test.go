package media_test

import (
	"bytes"
	"encoding/binary"
	"errors"
	"hash/crc32"
	"image"
	"image/color"
	"image/draw"
	"image/gif"
	"image/jpeg"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/words"
	"capstan/studio/media"

	"golang.org/x/image/bmp"
	"golang.org/x/image/tiff"
)

// sheer is a picture with clear, half clear and opaque parts, of other colours in each corner.
func sheer(w, h int) *image.NRGBA {
	m := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			a := uint8(255)
			switch {
			case x < w/4:
				a = 0
			case x < w/2:
				a = 128
			}
			m.SetNRGBA(x, y, color.NRGBA{uint8(40 + 200*x/w), uint8(230 - 200*y/h), uint8(60 + 100*(x+y)/(w+h)), a})
		}
	}
	return m
}

// tool runs a program in a folder.
func tool(t testing.TB, dir, name string, args ...string) []byte {
	t.Helper()
	cmd := exec.Command(name, args...)
	cmd.Dir = dir
	var out, said bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &said
	if err := cmd.Run(); err != nil {
		t.Fatalf("%s: %v: %s", name, err, said.String())
	}
	return out.Bytes()
}

func write(t testing.TB, path string, data []byte) {
	t.Helper()
	if err := os.WriteFile(path, data, 0o600); err != nil {
		t.Fatal(err)
	}
}

func read(t testing.TB, path string) []byte {
	t.Helper()
	data, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	return data
}

// formats are one picture in every format that is taken in, written by others than who reads it where there are such.
func formats(t testing.TB, m *image.NRGBA) map[string][]byte {
	t.Helper()
	dir := t.TempDir()
	write(t, filepath.Join(dir, "a.png"), encode(t, m))
	next := image.NewNRGBA(m.Rect)
	draw.Draw(next, next.Rect, image.NewUniform(color.NRGBA{200, 30, 30, 255}), image.Point{}, draw.Src)
	write(t, filepath.Join(dir, "b.png"), encode(t, next))
	for _, k := range []string{"a1.png", "a2.png"} {
		from := map[string]string{"a1.png": "a.png", "a2.png": "b.png"}[k]
		write(t, filepath.Join(dir, k), read(t, filepath.Join(dir, from)))
	}
	film := []string{"-y", "-v", "error", "-framerate", "5", "-i", "a%d.png"}
	tool(t, dir, "ffmpeg", append(film, "-plays", "0", "-f", "apng", "-pix_fmt", "rgba", "moves.apng")...)
	tool(t, dir, "ffmpeg", append(film, "-c:v", "libwebp_anim", "-lossless", "1", "-pix_fmt", "bgra", "moves.webp")...)
	tool(t, dir, "ffmpeg", "-y", "-v", "error", "-i", "a.png", "-c:v", "libwebp", "-lossless", "1", "-pix_fmt", "bgra", "still.webp")
	tool(t, dir, "ffmpeg", "-y", "-v", "error", "-i", "a.png", "-c:v", "libwebp", "-quality", "90", "lossy.webp")
	tool(t, dir, "avifenc", "--min", "0", "--max", "4", "--yuv", "444", "a.png", "still.avif")
	out := map[string][]byte{"png": read(t, filepath.Join(dir, "a.png"))}
	for _, name := range []string{"moves.apng", "moves.webp", "still.webp", "lossy.webp", "still.avif"} {
		out[name] = read(t, filepath.Join(dir, name))
	}
	var b bytes.Buffer
	if err := tiff.Encode(&b, m, &tiff.Options{Compression: tiff.Deflate}); err != nil {
		t.Fatal(err)
	}
	out["tiff"] = bytes.Clone(b.Bytes())
	opaque := image.NewRGBA(m.Rect)
	draw.Draw(opaque, opaque.Rect, image.White, image.Point{}, draw.Src)
	draw.Draw(opaque, opaque.Rect, m, image.Point{}, draw.Over)
	b.Reset()
	if err := bmp.Encode(&b, opaque); err != nil {
		t.Fatal(err)
	}
	out["bmp"] = bytes.Clone(b.Bytes())
	b.Reset()
	if err := jpeg.Encode(&b, opaque, &jpeg.Options{Quality: 95}); err != nil {
		t.Fatal(err)
	}
	out["jpeg"] = bytes.Clone(b.Bytes())
	return out
}

// A picture is the same whatever format it came in, clear and half clear parts too, but for what the format has no room for; one that moves is its
// first picture, and says so. It is found by what it is, not by what it is called, and taken in again without being read again.
func TestEveryFormatIsTakenIn(t *testing.T) {
	m := sheer(64, 40)
	f := media.NewFolder(t.TempDir())
	for name, data := range formats(t, m) {
		hash, facts, err := f.Take(bytes.NewReader(data), "picture.txt")
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		flat := name == "bmp" || name == "jpeg"
		if facts.Width != 64 || facts.Height != 40 || facts.Opaque != flat || facts.Moves != (name[0] == 'm') {
			t.Errorf("%s: %+v", name, facts)
		}
		got, err := f.Pixels(hash, 0)
		if err != nil {
			t.Fatal(err)
		}
		within := 1
		if name == "jpeg" || name == "lossy.webp" || name == "still.avif" {
			within = 24
		}
		worst := 0
		for y := 2; y < 38; y++ {
			for x := 2; x < 62; x++ {
				if name == "lossy.webp" && x%16 < 3 || name == "lossy.webp" && x%16 > 13 {
					continue // colours bleed over the edges of its blocks
				}
				c := color.RGBAModel.Convert(m.NRGBAAt(x, y)).(color.RGBA)
				if flat {
					k := 255 - int(c.A)
					c = color.RGBA{uint8(int(c.R) + k), uint8(int(c.G) + k), uint8(int(c.B) + k), 255}
				}
				q := got.RGBAAt(x, y)
				for _, d := range []int{int(c.R) - int(q.R), int(c.G) - int(q.G), int(c.B) - int(q.B), int(c.A) - int(q.A)} {
					worst = max(worst, d, -d)
				}
			}
		}
		if worst > within {
			t.Errorf("%s: a pixel is off by %d", name, worst)
		}
		if _, again, err := f.Take(bytes.NewReader(data), "again"); err != nil || again.Width != 64 || again.Moves != facts.Moves {
			t.Errorf("%s again: %+v, %v", name, again, err)
		}
	}
	// A GIF holds colours of a palette, and pixels that are clear or not; its first picture may be smaller than its screen.
	small := image.NewPaletted(image.Rect(8, 6, 40, 30), color.Palette{color.RGBA{}, color.RGBA{200, 40, 30, 255}})
	for i := range small.Pix {
		small.Pix[i] = uint8(i & 1)
	}
	var b bytes.Buffer
	for n := 1; n <= 2; n++ {
		g := &gif.GIF{Config: image.Config{Width: 64, Height: 40, ColorModel: small.Palette}, Image: []*image.Paletted{small, small}[:n], Delay: []int{10, 10}[:n], Disposal: []byte{1, 1}[:n]}
		b.Reset()
		if err := gif.EncodeAll(&b, g); err != nil {
			t.Fatal(err)
		}
		hash, facts, err := f.Take(bytes.NewReader(b.Bytes()), "a.gif")
		if err != nil || facts.Moves != (n == 2) || facts.Width != 64 {
			t.Fatalf("%d pictures: %+v, %v", n, facts, err)
		}
		img, err := f.Pixels(hash, 0)
		if err != nil {
			t.Fatal(err)
		}
		if a, c, out := img.RGBAAt(8, 6), img.RGBAAt(9, 6), img.RGBAAt(2, 2); a.A != 0 || c != (color.RGBA{200, 40, 30, 255}) || out.A != 0 {
			t.Errorf("its pixels are %v, %v and %v", a, c, out)
		}
	}
}

// EXIF, orientations 1 to 8 (CIPA DC-008, 4.6.4): which of its corners the first pixel is when it is upright. AVIF turns and mirrors by properties of
// its own.
func TestEveryOrientationStandsUpright(t *testing.T) {
	m := image.NewRGBA(image.Rect(0, 0, 48, 32))
	draw.Draw(m, m.Rect, image.White, image.Point{}, draw.Src)
	draw.Draw(m, image.Rect(0, 0, 16, 16), image.NewUniform(color.RGBA{200, 0, 0, 255}), image.Point{}, draw.Src)
	draw.Draw(m, image.Rect(32, 0, 48, 16), image.NewUniform(color.RGBA{0, 0, 200, 255}), image.Point{}, draw.Src)
	var b bytes.Buffer
	if err := jpeg.Encode(&b, m, &jpeg.Options{Quality: 95}); err != nil {
		t.Fatal(err)
	}
	f := media.NewFolder(t.TempDir())
	corners := func(data []byte) (out string) {
		hash, facts, err := f.Take(bytes.NewReader(data), "x")
		if err != nil {
			t.Fatal(err)
		}
		img, err := f.Pixels(hash, 0)
		if err != nil {
			t.Fatal(err)
		}
		for _, p := range []image.Point{{4, 4}, {facts.Width - 5, 4}, {4, facts.Height - 5}, {facts.Width - 5, facts.Height - 5}} {
			switch c := img.RGBAAt(p.X, p.Y); {
			case c.R > 150 && c.G < 90:
				out += "r"
			case c.B > 150 && c.G < 90:
				out += "b"
			default:
				out += "."
			}
		}
		return
	}
	// Red lies at the file's upper left, blue at its upper right. Read: upper left, upper right, lower left, lower right.
	for orientation, want := range []string{1: "rb..", 2: "br..", 3: "..br", 4: "..rb", 5: "r.b.", 6: ".r.b", 7: ".b.r", 8: "b.r."} {
		if orientation == 0 {
			continue
		}
		exif := append([]byte("Exif\x00\x00MM\x00*\x00\x00\x00\x08\x00\x01\x01\x12\x00\x03\x00\x00\x00\x01\x00"), byte(orientation), 0, 0, 0, 0, 0, 0)
		raw := append([]byte{0xFF, 0xD8, 0xFF, 0xE1}, binary.BigEndian.AppendUint16(nil, uint16(len(exif)+2))...)
		raw = append(append(raw, exif...), b.Bytes()[2:]...)
		if got := corners(raw); got != want {
			t.Errorf("orientation %d: %s, want %s", orientation, got, want)
		}
	}
	dir := t.TempDir()
	write(t, filepath.Join(dir, "a.png"), func() []byte { var b bytes.Buffer; _ = png.Encode(&b, m); return b.Bytes() }())
	for args, want := range map[string]string{"": "rb..", "--irot 1": "b.r.", "--irot 2": "..br", "--irot 3": ".r.b", "--imir 0": "..rb", "--imir 1": "br..", "--irot 1 --imir 1": ".b.r"} {
		var list []string
		for _, a := range bytes.Fields([]byte(args)) {
			list = append(list, string(a))
		}
		tool(t, dir, "avifenc", append(list, "--yuv", "444", "a.png", "a.avif")...)
		if got := corners(read(t, filepath.Join(dir, "a.avif"))); got != want {
			t.Errorf("AVIF %s: %s, want %s", args, got, want)
		}
	}
}

// What is torn at any place is refused in words, or is a picture of the size it had.
func TestTornPicturesOfEveryFormat(t *testing.T) {
	for name, data := range formats(t, sheer(24, 16)) {
		f := media.NewFolder(t.TempDir())
		step := 10
		if name == "still.avif" {
			step = 97 // each asks a program
		}
		for n := 0; n < len(data); n += step {
			_, facts, err := f.Take(bytes.NewReader(data[:n]), name)
			var no *words.Fault
			if err == nil && (facts.Width != 24 || facts.Height != 16) || err != nil && !errors.As(err, &no) {
				t.Errorf("%s of %d bytes: %+v, %v", name, n, facts, err)
			}
		}
	}
}

// What a picture says of who made it comes along, in one line without what cannot be seen, and no longer than may be.
func TestCreditsComeFromThePicture(t *testing.T) {
	f := media.NewFolder(t.TempDir())
	raw := encode(t, sheer(8, 8))
	text := func(name, v string) []byte {
		body := append(append([]byte("tEXt"+name), 0), v...)
		return binary.BigEndian.AppendUint32(append(binary.BigEndian.AppendUint32(nil, uint32(len(body)-4)), body...), crc32.ChecksumIEEE(body))
	}
	said := bytes.Join([][]byte{raw[:33], text("Author", "Ida\x00 F\xe4rber\n"), text("Source", "the harbour"), text("Copyright", strings.Repeat("free ", 100)), raw[33:]}, nil)
	_, facts, err := f.Take(bytes.NewReader(said), "a.png")
	if err != nil || facts.Source != "Ida Färber, the harbour" || len(facts.Licence) > doc.MaxCredit || !strings.HasPrefix(facts.Licence, "free free") {
		t.Errorf("%+v, %v", facts, err)
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, sheer(8, 8), nil); err != nil {
		t.Fatal(err)
	}
	// A TIFF of two entries (EXIF 2.3, 4.6.4): Artist (0x013B) and Copyright (0x8298), ASCII, at 38 and 50.
	exif := []byte("Exif\x00\x00MM\x00*\x00\x00\x00\x08\x00\x02\x01\x3b\x00\x02\x00\x00\x00\x0c\x00\x00\x00\x26\x82\x98\x00\x02\x00\x00\x00\x08\x00\x00\x00\x32\x00\x00\x00\x00A. Painter\x00\x00CC BY 4\x00")
	file := append([]byte{0xFF, 0xD8, 0xFF, 0xE1}, binary.BigEndian.AppendUint16(nil, uint16(len(exif)+2))...)
	file = append(append(file, exif...), b.Bytes()[2:]...)
	if _, facts, err := f.Take(bytes.NewReader(file), "a.jpg"); err != nil || facts.Source != "A. Painter" || facts.Licence != "CC BY 4" {
		t.Errorf("%+v, %v", facts, err)
	}
}

// Whatever is sent is refused in words, or is a picture within its bounds.
func FuzzIntake(f *testing.F) {
	for _, data := range formats(f, sheer(12, 8)) {
		f.Add(data)
	}
	folder := media.NewFolder(f.TempDir())
	f.Fuzz(func(t *testing.T, data []byte) {
		_, facts, err := folder.Take(bytes.NewReader(data), "x")
		var no *words.Fault
		if err != nil && !errors.As(err, &no) || err == nil && (facts.Width < 1 || facts.Height < 1 || facts.Width > doc.MaxSide || facts.Height > doc.MaxSide) {
			t.Errorf("%+v, %v", facts, err)
		}
	})
}
