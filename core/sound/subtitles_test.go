package sound_test

import (
	"errors"
	"os"
	"os/exec"
	"path/filepath"
	"reflect"
	"slices"
	"testing"
	"unicode/utf16"

	"capstan/core/doc"
	"capstan/core/sound"
	"capstan/core/words"
)

// Captions come in from both formats and however they are written; what is no caption is passed over, and what runs backwards is told.
func TestSubtitlesAreRead(t *testing.T) {
	two := []doc.Caption{{From: 1000, To: 2500, Text: "Kites up\nat ten."}, {From: 2500, To: 62_005, Text: "Größer & höher"}}
	utf := []byte{0xff, 0xfe}
	for _, u := range utf16.Encode([]rune("1\n00:00:01,000 --> 00:00:02,500\nKites up\nat ten.\n\n2\n00:00:02,500 --> 00:01:02,005\nGrößer & höher\n")) {
		utf = append(utf, byte(u), byte(u>>8))
	}
	for name, c := range map[string]struct {
		file      string
		want      []doc.Caption
		backwards int
	}{
		"SRT":             {"1\r\n00:00:01,000 --> 00:00:02,500\r\nKites up\r\nat ten.\r\n\r\n2\r\n00:00:02,500 --> 00:01:02,005\r\n<i>Größer</i> & höher\r\n", two, 0},
		"its marks":       {"\ufeff1\n00:00:01,000 --> 00:00:02,500 X1:40 X2:600\n{\\an8}<font color=\"#ffffff\">Kites up</font>\nat ten.\n2\n00:00:02.500 --> 00:01:02.005\nGrößer & höher", two, 0},
		"WebVTT":          {"WEBVTT - Sails\n\nNOTE 00:00 is the start\n\nSTYLE\n::cue { color: red }\n\nfirst\n00:01.000 --> 00:02.500 line:0 align:start\n<v Ada>Kites up\nat ten.</v>\n\n00:02.500 --> 00:01:02.005\nGrößer &amp; höher\n", two, 0},
		"UTF-16":          {string(utf), two, 0},
		"Latin-1":         {"00:00:01,000 --> 00:00:02,500\nKites up\nat ten.\n\n00:00:02,500 --> 00:01:02,005\nGr\xf6\xdfer & h\xf6her\n", two, 0},
		"backwards":       {"00:00:04,000 --> 00:00:03,000\nLost\n\n00:00:01,000 --> 00:00:02,500\nKites up\nat ten.\n\n00:00:02,500 --> 00:01:02,005\nGrößer & höher\n", two, 1},
		"less than words": {"00:00:01,0 --> 00:00:02,5\na < b > c <3\n", []doc.Caption{{From: 1000, To: 2500, Text: "a < b > c <3"}}, 0},
	} {
		got, err := sound.ReadSubtitles([]byte(c.file))
		if err != nil || !slices.Equal(got.Lines, c.want) || got.Backwards != c.backwards {
			t.Errorf("%s: %v, %d backwards, %v", name, got.Lines, got.Backwards, err)
		}
	}
	for _, bad := range []string{"", "WEBVTT\n\n", "Kites up at ten.", "\x00\x01\xff", "00:00:01,000 --> 00:00:02,500\n\n"} {
		var f *words.Fault
		if _, err := sound.ReadSubtitles([]byte(bad)); !errors.As(err, &f) || f.Key != "caption.none" {
			t.Errorf("%q: %v", bad, err)
		}
	}
}

// What is written is read again as it was, and by ffmpeg too.
func FuzzSubtitles(f *testing.F) {
	f.Add([]byte("WEBVTT\n\n00:01.000 --> 00:02.500\nKites &amp; <b>sails</b>\n"))
	f.Add([]byte("1\n00:00:01,000 --> 00:00:02,500\n2\n00:00:03,000 --> 00:00:04,000\nx --> y\n"))
	f.Fuzz(func(t *testing.T, file []byte) {
		s, err := sound.ReadSubtitles(file)
		if err != nil {
			return
		}
		again, err := sound.ReadSubtitles([]byte(sound.VTT(s.Lines)))
		third, err2 := sound.ReadSubtitles([]byte(sound.VTT(again.Lines)))
		if err != nil || err2 != nil || len(again.Lines) != len(s.Lines) || !reflect.DeepEqual(again.Lines, third.Lines) {
			t.Fatalf("%v became %v, then %v, %v", s.Lines, again.Lines, third.Lines, err)
		}
	})
}

func TestSubtitlesThatFFmpegWroteAreRead(t *testing.T) {
	list := []doc.Caption{{From: 40, To: 1960, Text: "Kites up at ten."}, {From: 2000, To: 3600_500, Text: "Bring a tail\nof three metres"}}
	for _, format := range []string{"vtt", "srt"} {
		out := filepath.Join(t.TempDir(), "out."+format)
		cmd := exec.Command("ffmpeg", "-loglevel", "error", "-f", "srt", "-i", "-", out)
		stdin, _ := cmd.StdinPipe()
		go func() { stdin.Write([]byte(sound.SRT(list))); stdin.Close() }()
		if err := cmd.Run(); err != nil {
			t.Fatal(err)
		}
		b, _ := os.ReadFile(out)
		if got, err := sound.ReadSubtitles(b); err != nil || !slices.Equal(got.Lines, list) {
			t.Errorf("%s: %v %v", format, got.Lines, err)
		}
	}
}
