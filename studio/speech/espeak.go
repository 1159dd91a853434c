package speech

import (
	"bytes"
	"context"
	"encoding/binary"
	"encoding/xml"
	"errors"
	"math"
	"os/exec"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"capstan/core/doc"
	"capstan/core/words"
)

// Espeak speaks by the program espeak-ng (Debian's package). Texts go to it by its input, never through a shell, and never as arguments.
type Espeak struct{}

// named is what languages and variants of it are called.
var named = regexp.MustCompile(`^[a-z0-9-]{2,30}$`)

// Variants of its voices, as they are offered; an empty one is the voice as it comes.
var Variants = []Voice{{"", "as it comes"}, {"f2", "a woman's"}, {"f4", "a woman's, brighter"}, {"m3", "a man's"}, {"m7", "a man's, deeper"}, {"klatt2", "plainer"}, {"whisper", "whispering"}}

// Voices asks the program; English comes first.
func (Espeak) Voices(ctx context.Context) ([]Voice, error) {
	out, err := exec.CommandContext(ctx, "espeak-ng", "--voices").Output()
	if err != nil {
		return nil, words.Because(err, "speech.none")
	}
	var list []Voice
	for _, line := range strings.Split(string(out), "\n")[1:] {
		f := strings.Fields(line)
		if len(f) >= 4 && named.MatchString(f[1]) {
			list = append(list, Voice{f[1], strings.ReplaceAll(f[3], "_", " ")})
		}
	}
	english := func(v Voice) int {
		if strings.HasPrefix(v.ID, "en") {
			return 0
		}
		return 1
	}
	slices.SortStableFunc(list, func(a, b Voice) int {
		if d := english(a) - english(b); d != 0 {
			return d
		}
		return strings.Compare(a.Name, b.Name)
	})
	return list, nil
}

// even is how many words a minute it speaks at a rate of 1.
const even = 165

// Speak has a sentence spoken.
func (Espeak) Speak(ctx context.Context, sentence string, how doc.Spoken) ([]int16, int, error) {
	return espeak(ctx, sentence, how, false)
}

// SpeakMarked has words spoken, those that are not loud silently.
func (Espeak) SpeakMarked(ctx context.Context, list []string, loud func(i int) bool, how doc.Spoken) ([]int16, int, error) {
	var b strings.Builder // SSML 1.1 (W3C)
	b.WriteString("<speak>")
	for i, w := range list {
		volume := "silent"
		if loud(i) {
			volume = "medium"
		}
		b.WriteString(` <prosody volume="` + volume + `">`)
		_ = xml.EscapeText(&b, []byte(w)) // nothing is refused there
		b.WriteString("</prosody>")
	}
	b.WriteString("</speak>")
	return espeak(ctx, b.String(), how, true)
}

func espeak(ctx context.Context, text string, how doc.Spoken, ssml bool) ([]int16, int, error) {
	voice := how.Voice
	if !named.MatchString(voice) || how.Variant != "" && !named.MatchString(how.Variant) {
		return nil, 0, words.New("speech.voice")
	}
	if how.Variant != "" {
		voice += "+" + how.Variant
	}
	rate := how.Rate
	if rate == 0 {
		rate = 1
	}
	args := []string{"-v", voice, "-s", strconv.Itoa(int(math.Round(even * rate))), "-p", strconv.Itoa(int(math.Round(50 + 45*how.Pitch))), "-b", "1", "--stdin", "--stdout"}
	if ssml {
		args = append(args, "-m")
	}
	cmd := exec.CommandContext(ctx, "espeak-ng", args...)
	cmd.Stdin = strings.NewReader(text)
	var said bytes.Buffer
	cmd.Stderr = &said
	out, err := cmd.Output()
	switch {
	case errors.Is(err, exec.ErrNotFound):
		return nil, 0, words.Because(err, "speech.none")
	case ctx.Err() != nil:
		return nil, 0, ctx.Err()
	case strings.Contains(said.String(), "voice does not exist"), strings.Contains(said.String(), "Error: The specified"):
		return nil, 0, words.New("speech.voice")
	case err != nil, len(out) < 46:
		return nil, 0, words.Because(err, "speech.failed")
	}
	// A WAV file whose header does not know how long it becomes: 16 bits, one channel.
	samples := make([]int16, (len(out)-44)/2)
	_ = binary.Read(bytes.NewReader(out[44:]), binary.LittleEndian, samples)
	return samples, int(binary.LittleEndian.Uint32(out[24:])), nil
}

// wav is a file of samples of one channel.
func wav(samples []int16, rate int) []byte {
	var b bytes.Buffer
	put := func(v any) { _ = binary.Write(&b, binary.LittleEndian, v) }
	n := uint32(2 * len(samples))
	b.WriteString("RIFF")
	put(36 + n)
	b.WriteString("WAVEfmt ")
	put([]uint32{16, 1 | 1<<16, uint32(rate), uint32(2 * rate), 2 | 16<<16})
	b.WriteString("data")
	put(n)
	put(samples)
	return b.Bytes()
}
