package export_test

import (
	"context"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/text"
	"capstan/core/words"
	"capstan/studio/export"
)

// near are the captions as ffmpeg reads them of a track: those of WebM, where what is heard begins before the pictures, are some ms off.
var near = regexp.MustCompile(`00:00:00,5[01]\d --> 00:00:01,3[01]\d\nKites & tails\s[^$]*00:00:01,7[01]\d --> 00:00:02,3[01]\d\n`)

// What voices say is written with its times, of the film or of a part of it, as files and as tracks that ffmpeg reads back; hostile words do not break out of their
// lines; a film in which nothing is spoken says so.
func TestCaptionsAreWritten(t *testing.T) {
	files, hash, facts := clicked(t)
	p := doc.NewProject("p", "Words", 64, 36, "s")
	p.Media = map[string]*doc.Media{hash: facts}
	sc := p.Film.Scenes[0]
	sc.Sounds = []*doc.Sound{{ID: "q", Name: "Voice", Media: hash, Use: doc.Voice, Start: doc.Start{When: doc.AtTime, Offset: 500}, Length: 3000, Speed: 0.5, Spoken: &doc.Spoken{
		Text: "…", Voice: "en", Lines: []doc.Caption{{From: 0, To: 400, Text: "Kites & tails\n\n00:00:01,000 --> 00:00:09,000"}, {From: 600, To: 900, Text: "<b>Up</b> at ten"}, {From: 5000, To: 6000, Text: "never heard"}}}}}
	compiled := func() *frame.Film {
		f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
		if err != nil {
			t.Fatal(err)
		}
		return f
	}
	make := func(o export.Options) string {
		t.Helper()
		o.Width, o.Height, o.RateNum, o.RateDen = 64, 36, 25, 1
		out := filepath.Join(t.TempDir(), "film."+o.Format)
		if err := export.Make(context.Background(), compiled(), files, o, out, none); err != nil {
			t.Fatal(err)
		}
		return out
	}
	const want = "1\n00:00:00,500 --> 00:00:01,300\nKites & tails\n00:00:01,000 → 00:00:09,000\n\n2\n00:00:01,700 --> 00:00:02,300\n<b>Up</b> at ten\n\n"
	if raw, _ := os.ReadFile(make(export.Options{Format: "srt"})); string(raw) != want {
		t.Errorf("the file is %q", raw)
	}
	if raw, _ := os.ReadFile(make(export.Options{Format: "vtt", From: 1000, To: 2000})); string(raw) != "WEBVTT\n\n00:00:00.000 --> 00:00:00.300\nKites &amp; tails\n00:00:01,000 → 00:00:09,000\n\n00:00:00.700 --> 00:00:01.000\n&lt;b&gt;Up&lt;/b&gt; at ten\n\n" {
		t.Errorf("of a part it is %q", raw)
	}
	for _, format := range []string{"mp4", "webm"} {
		for _, with := range []bool{true, false} {
			file := make(export.Options{Format: format, Captions: with})
			out, err := exec.Command("ffmpeg", "-loglevel", "error", "-i", file, "-map", "0:s", "-f", "srt", "-").Output()
			if with != (err == nil) {
				t.Errorf("%s, asked for captions %v: %v", format, with, err)
			}
			if got := string(out); with && !near.MatchString(got) {
				t.Errorf("%s: ffmpeg reads %q", format, got)
			}
			if kinds, _ := exec.Command("ffprobe", "-v", "error", "-show_entries", "stream=codec_type", "-of", "csv=p=0", file).Output(); !strings.Contains(string(kinds), "audio") {
				t.Errorf("%s lost its sound: %s", format, kinds)
			}
		}
	}
	sc.Sounds[0].Muted = true
	if err := export.Make(context.Background(), compiled(), files, export.Options{Format: "srt", Width: 64, Height: 36, RateNum: 25, RateDen: 1}, filepath.Join(t.TempDir(), "a.srt"), none); !words.Is(err, "export.wordless") {
		t.Errorf("of nothing it says %v", err)
	}
}

// Sizes that are told count what is heard.
func TestSizesCountSound(t *testing.T) {
	files, hash, facts := clicked(t)
	p := doc.NewProject("p", "Clicks", 64, 36, "s")
	p.Media = map[string]*doc.Media{hash: facts}
	p.Film.Scenes[0].Stay = 8000
	p.Film.Sounds = []*doc.Sound{{ID: "q", Name: "Clicks", Media: hash, Use: doc.Music, Start: doc.Start{When: doc.AtTime}, Length: 8000, Loops: true}}
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	for _, format := range []string{"mp4", "webm", "mov", "wav", "mp3"} {
		o := export.Options{Format: format, Width: 64, Height: 36, RateNum: 25, RateDen: 1}
		told, err := export.Estimate(context.Background(), f, files.Pixels, o)
		if err != nil {
			t.Fatal(err)
		}
		out := filepath.Join(t.TempDir(), "film."+format)
		if err := export.Make(context.Background(), f, files, o, out, none); err != nil {
			t.Fatal(err)
		}
		info, _ := os.Stat(out)
		by := map[string]int64{"mp4": 4, "webm": 4}[format] // encoders spend on clicks what they see fit
		if is := info.Size(); told < is/max(by, 1)*9/10 || told > is*max(by, 1)*11/10 {
			t.Errorf("%s: %d bytes were told, it has %d", format, told, is)
		}
	}
}
