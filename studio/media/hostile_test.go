package media_test

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"io"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"testing"
	"time"

	"capstan/core/words"
	"capstan/demo"
	"capstan/studio/media"
)

func pngOf(t *testing.T, w, h int) []byte {
	t.Helper()
	img := image.NewNRGBA(image.Rect(0, 0, w, h))
	for i := range img.Pix {
		img.Pix[i] = uint8(i * 7)
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func jpegOf(t *testing.T, w, h int) []byte {
	t.Helper()
	img := image.NewGray(image.Rect(0, 0, w, h))
	for i := range img.Pix {
		img.Pix[i] = uint8(i * 13)
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, nil); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// says gives a PNG another size in its head (PNG, third edition, 11.2.2), with a check sum that fits.
func says(data []byte, w, h uint32) []byte {
	out := bytes.Clone(data)
	binary.BigEndian.PutUint32(out[16:], w)
	binary.BigEndian.PutUint32(out[20:], h)
	binary.BigEndian.PutUint32(out[29:], crc32.ChecksumIEEE(out[12:29]))
	return out
}

// jpegSays gives a baseline JPEG another size in its frame header (ITU-T T.81, B.2.2).
func jpegSays(t *testing.T, data []byte, w, h uint16) []byte {
	t.Helper()
	out := bytes.Clone(data)
	i := bytes.Index(out, []byte{0xFF, 0xC0})
	if i < 0 {
		t.Fatal("no frame header")
	}
	binary.BigEndian.PutUint16(out[i+5:], h)
	binary.BigEndian.PutUint16(out[i+7:], w)
	return out
}

// refusedAs takes data in, expects the fault of a key, and that nothing stays of it.
func refusedAs(t *testing.T, data []byte, key string) {
	t.Helper()
	dir := t.TempDir()
	_, _, err := media.NewFolder(dir).Take(bytes.NewReader(data), "x.png")
	if !words.Is(err, key) {
		t.Errorf("got %v, want %s", err, key)
	}
	if left, _ := filepath.Glob(filepath.Join(dir, "*")); len(left) != 0 {
		t.Errorf("left behind: %v", left)
	}
}

func TestPNGsCutShortAnywhereAreRefused(t *testing.T) {
	whole := pngOf(t, 40, 30)
	for n := 8; n < len(whole)-12; n += max(1, len(whole)/60) {
		refusedAs(t, whole[:n], "picture.damaged")
	}
}

func TestJPEGsCutShortAnywhereAreRefused(t *testing.T) {
	whole := jpegOf(t, 64, 48)
	for n := 20; n < len(whole)-40; n += max(1, len(whole)/60) {
		refusedAs(t, whole[:n], "picture.damaged")
	}
}

func TestAPNGThatSaysItIsLargerThanItIsIsRefused(t *testing.T) {
	refusedAs(t, says(pngOf(t, 40, 30), 4000, 3000), "picture.damaged")
}

func TestAPNGThatSaysItIsSmallerIsRefused(t *testing.T) {
	refusedAs(t, says(pngOf(t, 40, 30), 20, 10), "picture.damaged")
}

func TestAJPEGThatSaysItIsLargerThanItIsIsRefused(t *testing.T) {
	refusedAs(t, jpegSays(t, jpegOf(t, 64, 48), 4000, 3000), "picture.damaged")
}

func TestAPNGOfThirtyThousandBySidesIsRefusedByItsHead(t *testing.T) {
	refusedAs(t, says(pngOf(t, 40, 30), 30000, 30000), "picture.side")
}

func TestAJPEGOfThirtyThousandBySidesIsRefusedByItsHead(t *testing.T) {
	refusedAs(t, jpegSays(t, jpegOf(t, 64, 48), 30000, 30000), "picture.side")
}

func TestMoreThanFiftyMegapixelsAreRefused(t *testing.T) {
	refusedAs(t, says(pngOf(t, 40, 30), 8192, 8192), "picture.pixels")
}

func TestAPNGOfNoSizeIsRefused(t *testing.T) {
	refusedAs(t, says(pngOf(t, 40, 30), 0, 10), "picture.damaged")
}

// A bomb: a head within the limits, and 190 MB of nothing behind it in 200 KB. It costs no more memory than its pixels.
func TestADecompressionBombIsHeldByItsSize(t *testing.T) {
	var b bytes.Buffer
	if err := png.Encode(&b, image.NewPaletted(image.Rect(0, 0, 8000, 6000), color.Palette{color.White, color.Black})); err != nil {
		t.Fatal(err)
	}
	// The head says one row; the stream goes on for six thousand.
	refusedAs(t, says(b.Bytes(), 8000, 1), "picture.damaged")
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	refusedAs(t, says(b.Bytes(), 100, 6000), "picture.damaged")
	runtime.ReadMemStats(&after)
	if spent := after.TotalAlloc - before.TotalAlloc; spent > 60<<20 {
		t.Errorf("a bomb of %d bytes cost %d MB", b.Len(), spent>>20)
	}
}

// endless is a body that never ends; read counts what was taken of it.
type endless struct{ read int64 }

func (e *endless) Read(p []byte) (int, error) {
	e.read += int64(len(p))
	return len(p), nil
}

func TestReadingStopsAtTheLimit(t *testing.T) {
	e := &endless{}
	_, _, err := media.NewFolder(t.TempDir()).Take(io.MultiReader(strings.NewReader("\x89PNG\r\n\x1a\n"), e), "x.png")
	if !words.Is(err, "picture.too-large") {
		t.Errorf("got %v", err)
	}
	if e.read > 2*media.MaxBytes {
		t.Errorf("%d MB were read of an endless body", e.read>>20)
	}
}

func TestSweepingKeepsWhatIsUsedOrNew(t *testing.T) {
	dir := t.TempDir()
	f := media.NewFolder(dir)
	take := func(data []byte) string {
		hash, _, err := f.Take(bytes.NewReader(data), "x.png")
		if err != nil {
			t.Fatal(err)
		}
		return hash
	}
	used, unused := take(pngOf(t, 40, 30)), take(pngOf(t, 30, 40))
	if _, err := f.Pixels(unused, 0); err != nil {
		t.Fatal(err)
	}
	keep := func(hash string) bool { return hash == used }
	if n, err := f.Sweep(keep, time.Now().Add(-time.Hour)); n != 0 || err != nil {
		t.Errorf("%d new files went, %v", n, err)
	}
	there := func(hash string) bool {
		_, err := os.Stat(filepath.Join(dir, hash+".png"))
		return err == nil
	}
	sweep := func() {
		t.Helper()
		if n, err := f.Sweep(keep, time.Now().Add(time.Second)); err != nil || n != 1 || !there(used) || there(unused) {
			t.Fatalf("%d files went, %v", n, err)
		}
	}
	sweep()
	// It comes back from the bin as soon as it is asked for, and is not swept at once.
	if _, err := f.Pixels(unused, 0); err != nil || !there(unused) {
		t.Errorf("out of the bin: %v", err)
	}
	if n, _ := f.Sweep(keep, time.Now().Add(-time.Hour)); n != 0 {
		t.Error("it was swept again at once")
	}
	sweep()
	if n, err := f.Empty(time.Now().Add(-media.InBin), 0); n != 0 || err != nil {
		t.Errorf("the bin was emptied at once: %d bytes, %v", n, err)
	}
	if n, err := f.Empty(time.Now().Add(-media.InBin), 1); n == 0 || err != nil {
		t.Errorf("the bin made no room: %v", err)
	}
	if !f.Has(used) || f.Has(unused) {
		t.Error("the wrong one went")
	}
	if _, err := f.Pixels(unused, 0); !words.Is(err, "picture.gone") {
		t.Errorf("its pixels: %v", err)
	}
	if img, err := f.PixelsOrSign(unused, 0); err != nil || img.RGBAAt(32, 32) != img.RGBAAt(0, 0) || img.RGBAAt(32, 10) == img.RGBAAt(0, 0) {
		t.Errorf("no sign with a cross and a frame: %v", err)
	}
}

// What was derived is derived again where only that is gone.
func TestDerivativesComeBackFromTheOriginal(t *testing.T) {
	dir := t.TempDir()
	f := media.NewFolder(dir)
	hash, _, err := f.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	if err := os.RemoveAll(filepath.Join(dir, hash)); err != nil {
		t.Fatal(err)
	}
	if !f.Has(hash) {
		t.Error("it counts as missing")
	}
	if _, err := f.Pixels(hash, 2); err != nil {
		t.Error(err)
	}
}

// No program on the PATH is asked to read a picture, whatever it is like; of a picture with frames the first alone is read.
func TestNoProgramReadsPictures(t *testing.T) {
	bin := t.TempDir()
	ran := filepath.Join(bin, "ran")
	for _, name := range []string{"magick", "convert", "ffmpeg"} {
		if err := os.WriteFile(filepath.Join(bin, name), []byte("#!/bin/sh\ntouch "+ran+"\n"), 0o755); err != nil {
			t.Fatal(err)
		}
	}
	t.Setenv("PATH", bin+":"+os.Getenv("PATH"))
	f := media.NewFolder(t.TempDir())
	good := pngOf(t, 40, 30)
	frames := append(append(append([]byte{}, good[:33]...), "\x00\x00\x00\x08acTL\x00\x00\x00\x02\x00\x00\x00\x00\x00\x00\x00\x00"...), good[33:]...)
	for name, data := range map[string][]byte{"good": good, "cut": good[:len(good)/2], "damaged": append(bytes.Repeat([]byte{7}, 40), good...), "frames": frames} {
		if _, _, err := f.Take(bytes.NewReader(data), name); (err == nil) != (name == "good" || name == "frames") {
			t.Errorf("%s: %v", name, err)
		}
	}
	if _, err := os.Stat(ran); err == nil {
		t.Error("a program was run")
	}
}
