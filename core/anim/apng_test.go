package anim_test

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"math/rand/v2"
	"os"
	"path/filepath"
	"testing"

	"capstan/core/anim"
)

// played reads an animated PNG with the reader of Go's library, which knows none: each frame is handed to it as a PNG of its own (PNG, third edition,
// 11.3.3). It returns what is shown, with how long, and how often all of it plays.
func played(t *testing.T, file []byte) (shown []*image.NRGBA, ms []int, plays int) {
	t.Helper()
	var head, control, body []byte
	var page *image.NRGBA
	chunk := func(kind string, data []byte) []byte {
		out := append(binary.BigEndian.AppendUint32(nil, uint32(len(data))), kind...)
		out = append(out, data...)
		return binary.BigEndian.AppendUint32(out, crc32.ChecksumIEEE(out[4:]))
	}
	end := func() {
		if control == nil {
			return
		}
		n := func(i int) int { return int(binary.BigEndian.Uint32(control[i:])) }
		own := bytes.Clone(head)
		copy(own, control[4:12])
		one := "\x89PNG\r\n\x1a\n" + string(chunk("IHDR", own)) + string(chunk("IDAT", body)) + string(chunk("IEND", nil))
		img, err := png.Decode(bytes.NewReader([]byte(one)))
		if err != nil {
			t.Fatalf("frame %d: %v", len(shown), err)
		}
		box := image.Rect(n(12), n(16), n(12)+n(4), n(16)+n(8))
		next := image.NewNRGBA(page.Rect)
		copy(next.Pix, page.Pix)
		for y := range box.Dy() {
			for x := range box.Dx() {
				c := color.NRGBAModel.Convert(img.At(x, y)).(color.NRGBA)
				if control[25] == 0 || c.A == 255 {
					next.SetNRGBA(box.Min.X+x, box.Min.Y+y, c)
				} else if c.A != 0 {
					t.Fatalf("frame %d lays half-clear pixels over others", len(shown))
				}
			}
		}
		page = next
		shown = append(shown, next)
		ms = append(ms, 1000*int(binary.BigEndian.Uint16(control[20:]))/int(binary.BigEndian.Uint16(control[22:])))
	}
	sequence := uint32(0)
	for at := 8; at < len(file); {
		size := int(binary.BigEndian.Uint32(file[at:]))
		kind, data := string(file[at+4:at+8]), file[at+8:at+8+size]
		if crc32.ChecksumIEEE(file[at+4:at+8+size]) != binary.BigEndian.Uint32(file[at+8+size:]) {
			t.Fatalf("the check sum of %s at %d is wrong", kind, at)
		}
		at += 12 + size
		if kind == "fcTL" || kind == "fdAT" {
			if s := binary.BigEndian.Uint32(data); s != sequence {
				t.Fatalf("%s has the number %d, not %d", kind, s, sequence)
			}
			sequence++
		}
		switch kind {
		case "IHDR":
			head = data
			page = image.NewNRGBA(image.Rect(0, 0, int(binary.BigEndian.Uint32(data)), int(binary.BigEndian.Uint32(data[4:]))))
		case "acTL":
			plays = int(binary.BigEndian.Uint32(data[4:]))
			defer func(n int) {
				if len(shown) != n {
					t.Errorf("it says it has %d frames, and has %d", n, len(shown))
				}
			}(int(binary.BigEndian.Uint32(data)))
		case "fcTL":
			end()
			control, body = data, nil
		case "IDAT":
			body = append(body, data...)
		case "fdAT":
			body = append(body, data[4:]...)
		}
	}
	end()
	return shown, ms, plays
}

// What is added is what is shown, to the pixel, half-clear ones too, whatever changes where; frames that are the same are joined, time adds up to that
// of the film whatever its rate, and what rests longer than a delay can say goes on.
func TestAPNGsAreExact(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 1))
	for round := range 12 {
		w, h, n := 3+r.IntN(40), 3+r.IntN(30), int64(1+r.IntN(9))
		opaque := round%3 == 0
		timing := anim.Timing{RateNum: []int64{30, 30000, 24, 7}[round%4], RateDen: []int64{1, 1001, 1, 2}[round%4], EndPause: int64(round%2) * 70000, Passes: int64(round % 5)}
		timing.Length = 1000 * n * timing.RateDen / timing.RateNum
		file, err := os.Create(filepath.Join(t.TempDir(), "a.png"))
		if err != nil {
			t.Fatal(err)
		}
		img := image.NewRGBA(image.Rect(0, 0, w, h))
		if opaque {
			draw.Draw(img, img.Rect, image.NewUniform(color.RGBA{240, 230, 210, 255}), image.Point{}, draw.Src)
		}
		g := anim.NewAPNG(file, w, h, timing, n)
		var want []*image.NRGBA
		for k := range n {
			if k%3 != 2 { // else the same again
				box := image.Rect(r.IntN(w), r.IntN(h), r.IntN(w)+1, r.IntN(h)+1).Canon()
				c := color.NRGBA{uint8(r.IntN(256)), uint8(r.IntN(256)), uint8(r.IntN(256)), 255}
				if !opaque && r.IntN(2) == 0 {
					c.A = uint8(r.IntN(256))
				}
				draw.Draw(img, box, image.NewUniform(c), image.Point{}, draw.Src)
			}
			own := image.NewNRGBA(img.Rect)
			for i := 0; i < len(img.Pix); i += 4 {
				if a := int(img.Pix[i+3]); a > 0 {
					for j := range 3 {
						own.Pix[i+j] = uint8(min(255, (int(img.Pix[i+j])*255+a/2)/a))
					}
					own.Pix[i+3] = uint8(a)
				}
			}
			want = append(want, own)
			if err := g.Add(img.Pix, img.Rect); err != nil {
				t.Fatal(err)
			}
		}
		if err := g.Close(); err != nil {
			t.Fatal(err)
		}
		data, err := os.ReadFile(file.Name())
		if err != nil {
			t.Fatal(err)
		}
		shown, ms, plays := played(t, data)
		total, at := 0, 0
		for i, img := range shown {
			total += ms[i]
			for at < len(want) && bytes.Equal(want[at].Pix, img.Pix) {
				at++
			}
		}
		if at != len(want) {
			t.Fatalf("round %d: frame %d is not shown as it was added", round, at)
		}
		if total != int(timing.Length+timing.EndPause) && total != int(timing.Length+timing.EndPause)+1 || plays != int(timing.Passes) {
			t.Errorf("round %d: it lasts %d ms, the film %d and %d; it plays %d times", round, total, timing.Length, timing.EndPause, plays)
		}
	}
}
