package media_test

import (
	"bytes"
	"errors"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/words"
	"capstan/studio/media"
)

func picture(w, h int) *image.NRGBA {
	m := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := 0; y < h; y++ {
		for x := 0; x < w; x++ {
			m.SetNRGBA(x, y, color.NRGBA{uint8(255 * x / w), uint8(255 * y / h), 90, 255})
		}
	}
	return m
}

func encode(t testing.TB, m image.Image) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := png.Encode(&b, m); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func TestAPictureIsTakenInWithItsMips(t *testing.T) {
	f := media.NewFolder(t.TempDir())
	raw := encode(t, picture(100, 50))
	hash, facts, err := f.Take(bytes.NewReader(raw), "../some/where/Gull.png")
	if err != nil {
		t.Fatal(err)
	}
	if facts.Name != "Gull.png" || facts.Width != 100 || facts.Height != 50 || !facts.Opaque || facts.Type != "image/png" || facts.Bytes != int64(len(raw)) {
		t.Errorf("facts %+v", facts)
	}
	for mip, size := range []image.Point{{100, 50}, {50, 25}, {25, 12}, {12, 6}, {6, 3}, {3, 1}, {3, 1}, {3, 1}} {
		m, err := f.Pixels(hash, mip)
		if err != nil || m.Rect.Size() != size {
			t.Fatalf("mip %d is %v, %v", mip, m.Rect, err)
		}
	}
	half, _ := f.Pixels(hash, 1)
	full, _ := f.Pixels(hash, 0)
	mean := (int(full.RGBAAt(20, 20).R) + int(full.RGBAAt(21, 20).R) + int(full.RGBAAt(20, 21).R) + int(full.RGBAAt(21, 21).R) + 2) / 4
	if got := int(half.RGBAAt(10, 10).R); got != mean {
		t.Errorf("a pixel of the half size is %d, the mean of its four is %d", got, mean)
	}
	orig, err := f.Original(hash)
	if b, _ := os.ReadFile(orig); err != nil || !bytes.Equal(b, raw) {
		t.Error("the original is not kept as it came")
	}
	again, _, err := f.Take(bytes.NewReader(raw), "other.png")
	if err != nil || again != hash {
		t.Errorf("the same bytes are another file: %v", err)
	}
}

// A phone held upright writes the picture lying, and says so in EXIF (orientation 6: turn by 90 degrees clockwise).
func TestPicturesStandUpright(t *testing.T) {
	m := image.NewRGBA(image.Rect(0, 0, 64, 32))
	for i := range m.Pix {
		m.Pix[i] = 255
	}
	for y := 0; y < 32; y++ {
		for x := 0; x < 32; x++ {
			m.SetRGBA(x, y, color.RGBA{200, 0, 0, 255}) // left half red: it becomes the upper half
		}
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, m, &jpeg.Options{Quality: 95}); err != nil {
		t.Fatal(err)
	}
	exif := []byte("Exif\x00\x00MM\x00*\x00\x00\x00\x08\x00\x01\x01\x12\x00\x03\x00\x00\x00\x01\x00\x06\x00\x00\x00\x00\x00\x00")
	raw := append([]byte{0xFF, 0xD8, 0xFF, 0xE1, byte((len(exif) + 2) >> 8), byte(len(exif) + 2)}, exif...)
	raw = append(raw, b.Bytes()[2:]...)
	f := media.NewFolder(t.TempDir())
	hash, facts, err := f.Take(bytes.NewReader(raw), "phone.jpg")
	if err != nil || facts.Width != 32 || facts.Height != 64 {
		t.Fatalf("%+v, %v", facts, err)
	}
	img, err := f.Pixels(hash, 0)
	if err != nil {
		t.Fatal(err)
	}
	if up, down := img.RGBAAt(16, 10), img.RGBAAt(16, 54); up.G > 40 || down.G < 215 {
		t.Errorf("above %v, below %v", up, down)
	}
}

func TestWhatIsNoPictureIsRefusedInWords(t *testing.T) {
	dir := t.TempDir()
	f := media.NewFolder(dir)
	whole := encode(t, picture(40, 40))
	var wide bytes.Buffer
	if err := png.Encode(&wide, image.NewGray(image.Rect(0, 0, 9200, 2))); err != nil {
		t.Fatal(err)
	}
	for name, c := range map[string]struct {
		data  []byte
		words string
	}{
		"page.svg":  {[]byte(`<svg xmlns="http://www.w3.org/2000/svg"><script/></svg>`), "no picture that can be taken in"},
		"empty.png": {nil, "no picture that can be taken in"},
		"torn.png":  {whole[:len(whole)/2], "damaged"},
		"head.png":  {whole[:20], "damaged"},
		"wide.png":  {wide.Bytes(), "9200 pixels along its longer side; the largest is 8192"},
	} {
		_, _, err := f.Take(bytes.NewReader(c.data), name)
		var no *words.Fault
		if !errors.As(err, &no) || !strings.Contains(no.Happened, c.words) || !strings.Contains(no.Kept, "Nothing was imported") {
			t.Errorf("%s: %v", name, err)
		}
	}
	if left, _ := filepath.Glob(filepath.Join(dir, "*")); len(left) != 0 {
		t.Errorf("left behind: %v", left)
	}
}

func TestNoPathComesFromAName(t *testing.T) {
	f := media.NewFolder(t.TempDir())
	for _, h := range []string{"../../etc/passwd", "", strings.Repeat("a", 63), strings.Repeat("A", 64), strings.Repeat("a", 64)} {
		if _, err := f.Derived(h, 0); err == nil {
			t.Errorf("%q has a derivative", h)
		}
		if _, err := f.Original(h); err == nil {
			t.Errorf("%q has an original", h)
		}
	}
}

// The part of a picture that is not clear is known to the pixel; read anew a picture is what its file says, whatever had been derived of it before.
func TestPicturesAreReadAnew(t *testing.T) {
	f := media.NewFolder(t.TempDir())
	img := image.NewNRGBA(image.Rect(0, 0, 40, 20))
	for y := 5; y < 15; y++ {
		for x := 4; x < 30; x++ {
			img.SetNRGBA(x, y, color.NRGBA{200, 40, 30, uint8(1 + 8*x)})
		}
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	hash, facts, err := f.Take(bytes.NewReader(b.Bytes()), "margins.png")
	if err != nil {
		t.Fatal(err)
	}
	if facts.Shown == nil || *facts.Shown != (doc.Crop{0.1, 0.25, 0.75, 0.75}) || facts.Intake != doc.Intake {
		t.Errorf("it says %+v, %v", facts, facts.Shown)
	}
	was, err := f.Pixels(hash, 0)
	if err != nil {
		t.Fatal(err)
	}
	before := slices.Clone(was.Pix)
	path, err := f.Derived(hash, 0)
	if err != nil {
		t.Fatal(err)
	}
	var other bytes.Buffer
	if err := png.Encode(&other, image.NewGray(image.Rect(0, 0, 40, 20))); err != nil {
		t.Fatal(err)
	}
	if err := os.WriteFile(path, other.Bytes(), 0o600); err != nil { // as an older Capstan might have read it
		t.Fatal(err)
	}
	anew, err := f.Anew(hash)
	if err != nil {
		t.Fatal(err)
	}
	if is, err := f.Pixels(hash, 0); err != nil || !slices.Equal(is.Pix, before) || anew.Width != 40 || anew.Intake != doc.Intake {
		t.Errorf("read anew it is other pixels, %+v: %v", anew, err)
	}
	if _, err := f.Anew(strings.Repeat("a", 64)); err == nil {
		t.Error("a picture that is not there is read anew")
	}
}
