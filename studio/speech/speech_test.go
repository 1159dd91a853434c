package speech_test

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"math"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/words"
	"capstan/studio/media"
	"capstan/studio/speech"
)

// Texts are parted where sentences and lines end; what has nothing to be spoken is left out.
func TestSentences(t *testing.T) {
	for text, want := range map[string][]string{
		"Kites up at ten. Bring a long tail!": {"Kites up at ten.", "Bring a long tail!"},
		"At 3.5 m/s it flies\n\nNo rain …":    {"At 3.5 m/s it flies", "No rain …"},
		"  ... -- !":                          nil,
		"One":                                 {"One"},
	} {
		if got := speech.Sentences(text); !slices.Equal(got, want) {
			t.Errorf("%q: %q, want %q", text, got, want)
		}
	}
	if n := len(speech.Sentences(strings.Repeat("A. ", 2000))); n != doc.MaxLines {
		t.Errorf("two thousand sentences are %d lines", n)
	}
}

// A text becomes a voice with its sentences in order, a pause between them, slower and faster as asked for; texts that are hostile to a shell, or to options, are
// spoken as what they are.
func TestATextIsSpoken(t *testing.T) {
	ctx := context.Background()
	voices, err := speech.Espeak{}.Voices(ctx)
	if err != nil || len(voices) < 20 || !strings.HasPrefix(voices[0].ID, "en") {
		t.Fatalf("%v, %v", voices, err)
	}
	how := doc.Spoken{Text: "Kites up at ten. Bring a long tail!", Voice: "en-gb", Variant: "f2", Pause: 400}
	said, err := speech.Say(ctx, speech.Espeak{}, how)
	if err != nil || len(said.Lines) != 2 || said.Lines[1].From-said.Lines[0].To != 400 || said.Lines[0].To < 500 {
		t.Fatalf("%v %+v", err, said)
	}
	_, facts, err := media.NewFolder(t.TempDir()).TakeSound(ctx, bytes.NewReader(said.WAV), "voice.wav")
	if err != nil || math.Abs(float64(facts.Samples)/48-float64(said.Lines[1].To)) > 5 {
		t.Errorf("its recording has %d ms, its lines end at %d, %v", facts.Samples/48, said.Lines[1].To, err)
	}
	slow := how
	slow.Rate = 0.7
	if slower, err := speech.Say(ctx, speech.Espeak{}, slow); err != nil || float64(slower.Lines[0].To) < 1.15*float64(said.Lines[0].To) {
		t.Errorf("slower it takes %v, %v", slower, err)
	}
	dir := t.TempDir()
	for _, text := range []string{"$(touch " + dir + "/a) `touch " + dir + "/b`; touch " + dir + "/c", "-w " + dir + "/d", "--stdout\x00x", "<speak><audio src='" + dir + "'/>hm</speak>", strings.Repeat("a", 4999)} {
		if _, err := speech.Say(ctx, speech.Espeak{}, doc.Spoken{Text: text, Voice: "en"}); err != nil && !words.Is(err, "speech.failed") {
			t.Errorf("%.30q: %v", text, err)
		}
	}
	if left, _ := filepath.Glob(filepath.Join(dir, "*")); len(left) > 0 {
		t.Errorf("a text made %v", left)
	}
	for key, how := range map[string]doc.Spoken{
		"speech.empty": {Text: " \n", Voice: "en"}, "speech.long": {Text: strings.Repeat("a ", 3000), Voice: "en"}, "speech.voice": {Text: "Hm", Voice: "../../etc"},
	} {
		if _, err := speech.Say(ctx, speech.Espeak{}, how); !words.Is(err, key) {
			t.Errorf("%s: %v", key, err)
		}
	}
	if _, err := speech.Say(ctx, speech.Espeak{}, doc.Spoken{Text: "Hm", Voice: "xx-none"}); !words.Is(err, "speech.voice") && !words.Is(err, "speech.failed") {
		t.Errorf("of a voice that is not there it says %v", err)
	}
	gone, stop := context.WithCancel(ctx)
	stop()
	if _, err := speech.Say(gone, speech.Espeak{}, how); !errors.Is(err, context.Canceled) {
		t.Errorf("given up it says %v", err)
	}
	path := os.Getenv("PATH")
	t.Setenv("PATH", t.TempDir())
	if _, err := speech.Say(ctx, speech.Espeak{}, how); !words.Is(err, "speech.none") {
		t.Errorf("without espeak-ng it says %v", err)
	}
	t.Setenv("PATH", path)
}

// Where a voice says its words is told: each after the one before, and those after a comma where the samples are loud again.
func TestWordsAreFoundInAVoice(t *testing.T) {
	for _, c := range []struct{ voice, text string }{{"en-gb", "Bring a kite, a tail, and a friend of the harbour. Forty of them, at the quay."}, {"de", "Ein Drachen, eine Schnur, und der Wind vom Meer."}} {
		said, err := speech.Say(context.Background(), speech.Espeak{}, doc.Spoken{Text: c.text, Voice: c.voice, Pause: 300})
		if err != nil {
			t.Fatal(err)
		}
		list := strings.Fields(c.text)
		if len(said.Words) != len(list) {
			t.Fatalf("%d words of %d: %v", len(said.Words), len(list), said.Words)
		}
		var again []int64 // ms at which it is loud after a silence
		rate, quiet := int64(binary.LittleEndian.Uint32(said.WAV[24:])), int64(1<<40)
		for i := int64(0); 44+2*i+1 < int64(len(said.WAV)); i++ {
			if v := int16(binary.LittleEndian.Uint16(said.WAV[44+2*i:])); v > 200 || v < -200 {
				if quiet > rate*100/1000 {
					again = append(again, i*1000/rate)
				}
				quiet = 0
			} else {
				quiet++
			}
		}
		k := 0
		for i, w := range said.Words {
			if want := strings.Trim(list[i], ",."); w.Text != want || i > 0 && w.At <= said.Words[i-1].At {
				t.Errorf("word %d is %v after %v, want %q", i, w, said.Words[max(0, i-1)], want)
			}
			if i > 0 && !strings.ContainsAny(list[i-1], ",.") {
				continue
			}
			if k >= len(again) || max(w.At-again[k], again[k]-w.At) > 25 {
				t.Errorf("%q begins at %d ms; it is loud again at %v", w.Text, w.At, again)
			}
			k++
		}
	}
}
