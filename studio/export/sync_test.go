package export_test

import (
	"bytes"
	"context"
	"encoding/binary"
	"fmt"
	"math"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/text"
	"capstan/studio/export"
	"capstan/studio/media"
)

// clicked is a folder with a recording of a click: a millisecond at full scale, then silence.
func clicked(t *testing.T) (*media.Folder, string, *doc.Media) {
	t.Helper()
	files := media.NewFolder(t.TempDir())
	var b bytes.Buffer
	b.WriteString("RIFF\x00\x00\x00\x00WAVEfmt ")
	for _, v := range []any{uint32(16), uint16(3), uint16(1), uint32(48000), uint32(192000), uint16(4), uint16(32)} {
		_ = binary.Write(&b, binary.LittleEndian, v)
	}
	samples := make([]float32, 4800)
	for i := range 48 {
		samples[i] = 0.9
	}
	b.WriteString("data")
	_ = binary.Write(&b, binary.LittleEndian, uint32(4*len(samples)))
	_ = binary.Write(&b, binary.LittleEndian, samples)
	hash, facts, err := files.TakeSound(context.Background(), &b, "click.wav")
	if err != nil {
		t.Fatal(err)
	}
	return files, hash, facts
}

var shownAt = regexp.MustCompile(`pts_time:(\S+).*mean:\[(\d+)`)

// flashes are when a film gets bright, and clicks when it gets loud, in s, as ffmpeg plays it.
func flashes(t *testing.T, file string) (bright, loud []float64) {
	t.Helper()
	var said, heard bytes.Buffer
	cmd := exec.Command("ffmpeg", "-hide_banner", "-nostdin", "-copyts", "-i", file, "-map", "0:v:0", "-vf", "scale=16:16,format=gray,showinfo", "-vsync", "passthrough", "-f", "null", "-")
	cmd.Stderr = &said
	if err := cmd.Run(); err != nil {
		t.Fatal(err, said.String())
	}
	before := true
	for _, m := range shownAt.FindAllStringSubmatch(said.String(), -1) {
		at, _ := strconv.ParseFloat(m[1], 64)
		mean, _ := strconv.Atoi(m[2])
		if is := mean > 128; is != before {
			if before = is; is {
				bright = append(bright, at)
			}
		}
	}
	cmd = exec.Command("ffmpeg", "-loglevel", "error", "-nostdin", "-copyts", "-i", file, "-map", "0:a:0", "-af", "aresample=async=1:first_pts=0", "-ac", "1", "-ar", "48000", "-f", "f32le", "-")
	cmd.Stdout = &heard
	if err := cmd.Run(); err != nil {
		t.Fatal(err)
	}
	samples := make([]float32, heard.Len()/4)
	_ = binary.Read(&heard, binary.LittleEndian, samples)
	for i := 0; i < len(samples); i++ {
		if math.Abs(float64(samples[i])) > 0.3 {
			loud = append(loud, float64(i)/48000)
			i += 24000
		}
	}
	return bright, loud
}

// A flash and a click at one time are at one time in every file with pictures and sound, at its begin and after five minutes, at every rate: less than 10 ms apart.
func TestPicturesAndSoundAreInStep(t *testing.T) {
	files, hash, facts := clicked(t)
	for _, rate := range []doc.Rate{{Num: 24, Den: 1}, {Num: 25, Den: 1}, {Num: 30000, Den: 1001}, {Num: 30, Den: 1}, {Num: 60, Den: 1}} {
		times := []int64{1000, 3000} // where a frame begins
		if rate.Den > 1 {
			times = []int64{1001, 300_300}
		}
		p := doc.NewProject("p", "Step", 64, 36, "s")
		p.Media = map[string]*doc.Media{hash: facts}
		p.Film.Rate = rate
		sc := p.Film.Scenes[0]
		sc.Stay, sc.Background = times[1]+1000, doc.Fill{Kind: doc.Solid, Colour: "#000000"}
		for i, at := range times {
			start := func(ms int64) doc.Start { return doc.Start{When: doc.AtTime, Offset: ms} }
			l := &doc.Layer{ID: fmt.Sprint("l", i), Thread: fmt.Sprint("l", i), Name: "Flash", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}, Place: doc.Place{X: 32, Y: 18, W: 64, H: 36}}
			l.Moves = []*doc.Move{{ID: fmt.Sprint("m", i), Kind: doc.Entrance, Effect: effect.AtOnce, Start: start(at)}, {ID: fmt.Sprint("n", i), Kind: doc.Exit, Effect: effect.AtOnce, Start: start(at + 200)}}
			sc.Layers = append(sc.Layers, l)
			sc.Sounds = append(sc.Sounds, &doc.Sound{ID: fmt.Sprint("q", i), Name: "Click", Media: hash, Use: doc.Noise, Start: start(at), Length: 100})
		}
		f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
		if err != nil {
			t.Fatal(err)
		}
		for _, format := range []string{"mp4", "webm", "mov"} {
			if format == "mov" && rate.Num != 30 {
				continue // it is large, and made as MP4 is
			}
			out := filepath.Join(t.TempDir(), "film."+format)
			if err := export.Make(context.Background(), f, files, export.Options{Format: format, Width: 64, Height: 36, RateNum: rate.Num, RateDen: rate.Den}, out, none); err != nil {
				t.Fatal(err)
			}
			bright, loud := flashes(t, out)
			if len(bright) != 2 || len(loud) != 2 {
				t.Errorf("%s at %d/%d: flashes %v, clicks %v", format, rate.Num, rate.Den, bright, loud)
				continue
			}
			for i := range bright {
				if d := bright[i] - loud[i]; math.Abs(d) > 0.01 || math.Abs(bright[i]-float64(times[i])/1000) > 0.02 {
					t.Errorf("%s at %d/%d: flash at %.4f, click at %.4f, both asked for at %.3f", format, rate.Num, rate.Den, bright[i], loud[i], float64(times[i])/1000)
				}
			}
		}
	}
}
