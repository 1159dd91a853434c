package media_test

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"capstan/core/doc"
	"capstan/core/words"
	"capstan/studio/media"
)

// made is a file that ffmpeg makes: a tone of 440 Hz at an eighth of full scale, or what source says.
func made(t *testing.T, name, source string, arguments ...string) string {
	t.Helper()
	if source == "" {
		source = "sine=frequency=440:duration=1.5:sample_rate=44100"
	}
	out := filepath.Join(t.TempDir(), name)
	if b, err := exec.Command("ffmpeg", append(append([]string{"-loglevel", "error", "-y", "-f", "lavfi", "-i", source}, arguments...), out)...).CombinedOutput(); err != nil {
		t.Fatalf("%v %s", err, b)
	}
	return out
}

func took(t *testing.T, f *media.Folder, file string) (string, *doc.Media, error) {
	t.Helper()
	r, err := os.Open(file)
	if err != nil {
		t.Fatal(err)
	}
	defer r.Close()
	return f.TakeSound(context.Background(), r, filepath.Base(file))
}

// Files of every kind that is taken in come out as the tone they hold, at 48,000 frames a second, whatever rate and channels they have; what is drawn of them
// reaches as high as they do.
func TestSoundsOfEveryKindComeIn(t *testing.T) {
	f := media.NewFolder(t.TempDir())
	for _, c := range []struct {
		name      string
		source    string
		arguments []string
		channels  int
	}{
		{"a.mp3", "", nil, 1}, {"a.wav", "", []string{"-ar", "8000"}, 1}, {"b.wav", "", []string{"-ar", "192000", "-c:a", "pcm_s24le"}, 1}, {"a.aiff", "", []string{"-ac", "2"}, 2},
		{"a.flac", "", nil, 1}, {"a.ogg", "", []string{"-c:a", "libvorbis"}, 1}, {"a.opus", "", []string{"-c:a", "libopus"}, 1}, {"a.m4a", "", nil, 1}, {"a.aac", "", nil, 1},
		{"eight.wav", "sine=frequency=440:duration=1.5,pan=7.1|c0=c0|c1=c0|c2=c0|c3=c0|c4=c0|c5=c0|c6=c0|c7=c0", nil, 2},
		{"film.mp4", "sine=frequency=440:duration=1.5[out0];color=c=red:s=64x64:d=1.5[out1]", []string{"-shortest"}, 1},
	} {
		hash, facts, err := took(t, f, made(t, c.name, c.source, c.arguments...))
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		if s := float64(facts.Samples) / 48000; facts.Channels != c.channels || math.Abs(s-1.5) > 0.15 || !facts.IsSound() {
			t.Errorf("%s: %+v, %.2f s", c.name, facts, s)
		}
		frames := make([]float32, facts.Channels*24000)
		r := f.Recordings()
		if !r.Read(hash, facts.Channels, 12000, frames) {
			t.Fatalf("%s cannot be read", c.name)
		}
		_ = r.Close()
		crossings := 0
		for i := facts.Channels; i < len(frames); i += facts.Channels {
			if frames[i-facts.Channels] < 0 && frames[i] >= 0 {
				crossings++
			}
		}
		if crossings < 219 || crossings > 221 {
			t.Errorf("%s: %d waves in half a second, not 220", c.name, crossings)
		}
		p, err := f.SoundFile(hash, "peaks-1")
		if err != nil {
			t.Fatal(err)
		}
		peaks, _ := os.ReadFile(p)
		if n := (int(facts.Samples) + 1023) / 1024; len(peaks) != 2*n || int8(peaks[len(peaks)/2/2*2+1]) < 12 || c.name != "eight.wav" && int8(peaks[len(peaks)/2/2*2+1]) > 22 {
			t.Errorf("%s: %d bytes of peaks, in the middle %d", c.name, len(peaks), int8(peaks[len(peaks)/2/2*2+1]))
		}
		// What was decoded is decoded again when it is lost.
		p, _ = f.SoundFile(hash, "frames")
		_ = os.Remove(p)
		if again, err := f.SoundFile(hash, "frames"); err != nil || again != p {
			t.Errorf("%s: %v", c.name, err)
		}
	}
}

// wav is a file of floats with that many frames, and a header that says so many.
func wav(frames []float32, says int) []byte {
	var b bytes.Buffer
	put := func(v ...any) {
		for _, v := range v {
			_ = binary.Write(&b, binary.LittleEndian, v)
		}
	}
	b.WriteString("RIFF")
	put(uint32(36 + 4*says))
	b.WriteString("WAVEfmt ")
	put(uint32(16), uint16(3), uint16(1), uint32(48000), uint32(192000), uint16(4), uint16(32))
	b.WriteString("data")
	put(uint32(4*says), frames)
	return b.Bytes()
}

// What cannot be taken in is refused in words, and leaves nothing; what is odd is heard as well as it can be: cut off, called otherwise, silent, with samples that
// are no numbers.
func TestSoundsThatCannotComeIn(t *testing.T) {
	dir := t.TempDir()
	f := media.NewFolder(dir)
	mp3, _ := os.ReadFile(made(t, "a.mp3", ""))
	nan := make([]float32, 48000)
	nan[5], nan[6], nan[7] = float32(math.NaN()), float32(math.Inf(1)), -1e30
	silent := wav(make([]float32, 48000), 480000) // and its header says ten times as much
	locked := bytes.ReplaceAll(readFile(t, made(t, "a.m4a", "")), []byte("mp4a"), []byte("enca"))
	for _, c := range []struct {
		name string
		data []byte
		key  string // empty: it comes in
	}{
		{"cut-off.mp3", mp3[:len(mp3)/2], ""}, {"picture.png.jpg", mp3, ""}, {"silence.wav", silent, ""}, {"nan.wav", wav(nan, 48000), ""},
		{"three-hours.flac", readFile(t, made(t, "a.flac", "anullsrc=r=8000:cl=mono:d=10800")), "sound.long"},
		{"text.mp3", []byte("This is no sound at all, whatever it is called."), "sound.kind"}, {"empty.wav", nil, "sound.kind"},
		{"header.wav", wav(nil, 0), "sound.damaged"}, {"noise.m4a", locked[:200], "sound.damaged"}, {"locked.m4a", locked, "sound.locked"},
		{"playlist.mp3", []byte("ffconcat version 1.0\nfile /etc/passwd\n"), "sound.kind"},
		{"mute.mp4", readFile(t, made(t, "mute.mp4", "color=c=red:s=64x64:d=0.2")), "sound.none"},
	} {
		_, facts, err := f.TakeSound(context.Background(), bytes.NewReader(c.data), c.name)
		if c.key == "" && (err != nil || facts.Samples < 20000) || c.key != "" && !words.Is(err, c.key) {
			t.Errorf("%s: %v, %v; want %s", c.name, facts, err, c.key)
		}
	}
	hash, facts, err := f.TakeSound(context.Background(), bytes.NewReader(wav(nan, 48000)), "nan.wav")
	got := make([]float32, 10)
	if r := f.Recordings(); err != nil || !r.Read(hash, facts.Channels, 0, got) || got[5] != 0 || got[6] != 8 || got[7] != -8 {
		t.Errorf("what is no number comes out as %v, %v", got, err)
	}
	ctx, stop := context.WithCancel(context.Background())
	stop()
	if _, _, err := f.TakeSound(ctx, bytes.NewReader(silentOf(9)), "a.wav"); !errors.Is(err, context.Canceled) {
		t.Errorf("given up it says %v", err)
	}
	left, _ := filepath.Glob(filepath.Join(dir, "*", ".aside-*"))
	more, _ := filepath.Glob(filepath.Join(dir, ".aside-*"))
	if len(left)+len(more) > 0 {
		t.Errorf("it leaves %v %v", left, more)
	}
	// One that is ended half way, as a machine without memory does it, leaves no half recording; afterwards the same file comes in.
	bin, path := t.TempDir(), os.Getenv("PATH")
	probe, _ := exec.LookPath("ffprobe")
	if err := errors.Join(os.Symlink(probe, filepath.Join(bin, "ffprobe")), os.WriteFile(filepath.Join(bin, "ffmpeg"), []byte("#!/bin/sh\nhead -c 400000 /dev/zero\nkill -9 $$\n"), 0o700)); err != nil {
		t.Fatal(err)
	}
	t.Setenv("PATH", bin+":"+path)
	if hash, _, err := f.TakeSound(context.Background(), bytes.NewReader(silentOf(11)), "a.wav"); !words.Is(err, "sound.stopped") {
		t.Errorf("ended half way it says %v, %s", err, hash)
	}
	t.Setenv("PATH", path)
	if _, facts, err := f.TakeSound(context.Background(), bytes.NewReader(silentOf(11)), "a.wav"); err != nil || facts.Samples != 4811 {
		t.Errorf("afterwards it is %v, %v", facts, err)
	}
	t.Setenv("PATH", t.TempDir())
	if _, _, err := f.TakeSound(context.Background(), bytes.NewReader(silentOf(7)), "a.wav"); !words.Is(err, "sound.ffmpeg") {
		t.Errorf("without ffmpeg it says %v", err)
	}
}

func silentOf(n int) []byte { return wav(make([]float32, 4800+n), 4800+n) }

func readFile(t *testing.T, name string) []byte {
	t.Helper()
	b, err := os.ReadFile(name)
	if err != nil {
		t.Fatal(fmt.Errorf("%s: %w", name, err))
	}
	return b
}
