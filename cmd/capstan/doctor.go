package main

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"syscall"

	"capstan/core/delivery"
	"capstan/core/words"
	"capstan/library"
	"capstan/studio/export"
	"capstan/studio/speech"
	"capstan/studio/store"

	"github.com/spf13/cobra"
)

// doctorCommand looks at what Capstan needs of this machine and says what is wrong.
func doctorCommand() *cobra.Command {
	var dir string
	var adopt bool
	c := &cobra.Command{
		Use: "doctor", Short: "Look at what Capstan needs of this machine; exit 1 when something is missing", Args: cobra.NoArgs,
		RunE: func(*cobra.Command, []string) error {
			if adopt {
				if err := store.Adopt(dir); err != nil {
					return err
				}
			}
			ill := 0
			for _, look := range []func(string) (string, string, error){video, pictures, voices, fonts, room, data} {
				what, words, err := look(dir)
				if err != nil {
					ill++
					words = err.Error()
				}
				fmt.Printf("%-8s %-4s %s\n", what, map[bool]string{true: "ok", false: "ILL"}[err == nil], words)
			}
			if ill > 0 {
				return errors.New("something is missing; see above")
			}
			return nil
		},
	}
	c.Flags().StringVar(&dir, "data", "data", "data folder")
	c.Flags().BoolVar(&adopt, "adopt", false, "take the database in the data folder as the one of the pictures beside it")
	c.Flags().String("config", "", "file of settings, JSON")
	c.PreRunE = func(c *cobra.Command, _ []string) error { return settle(c) }
	return c
}

func video(string) (string, string, error) {
	out, _ := exec.Command("ffmpeg", "-version").Output()
	first, _, _ := strings.Cut(string(out), "\n")
	lacks := slices.Sorted(maps.Keys(export.Lacks()))
	if first += ", all kinds of files are made"; len(lacks) > 0 {
		first = strings.TrimSuffix(first, "all kinds of files are made") + "but no files of the kinds " + strings.Join(lacks, ", ")
	}
	return "video", first, export.Able(delivery.MP4)
}

// pictures tells whether AVIF can be read; all else is without it.
func pictures(string) (string, string, error) {
	if _, err := exec.LookPath("avifdec"); err != nil {
		return "pictures", "AVIF pictures are refused: avifdec (libavif-bin) is not installed", nil
	}
	return "pictures", "AVIF by avifdec, all others by themselves", nil
}

// voices tells whether texts can be spoken; all else is without it.
func voices(string) (string, string, error) {
	list, err := speech.Espeak{}.Voices(context.Background())
	if err != nil {
		return "voices", "no words are spoken: espeak-ng is not installed", nil
	}
	return "voices", fmt.Sprintf("%d, by espeak-ng", len(list)), nil
}

func fonts(string) (string, string, error) {
	_, err := library.Book()
	return "fonts", fmt.Sprintf("%d families ship with Capstan", len(library.Families)), err
}

// enough is how much room an export may well need, in bytes.
const enough = 1 << 30

func room(dir string) (string, string, error) {
	// A folder that is not there yet will lie on the disk of the nearest one that is.
	at, err := filepath.Abs(dir)
	for err == nil && at != "/" {
		if _, missing := os.Stat(at); missing == nil {
			break
		}
		at = filepath.Dir(at)
	}
	var s syscall.Statfs_t
	if err := errors.Join(err, syscall.Statfs(at, &s)); err != nil {
		return "disk", "", err
	}
	free := s.Bavail * uint64(s.Bsize)
	if free < enough {
		return "disk", "", fmt.Errorf("%.1f GB are free; exports may need more", float64(free)/1e9)
	}
	return "disk", fmt.Sprintf("%.0f GB are free", float64(free)/1e9), nil
}

func data(dir string) (string, string, error) {
	if _, err := os.Stat(filepath.Join(dir, "capstan.db")); errors.Is(err, os.ErrNotExist) {
		return "data", "no project has been made in " + dir + " yet", nil
	}
	a, err := assets()
	if err != nil {
		return "data", "", err
	}
	s, err := store.Open(dir, a)
	if words.Is(err, "data.in-use") {
		return "data", err.Error(), nil
	} else if err != nil {
		return "data", "", err
	}
	defer s.Close()
	list, err := s.Projects()
	return "data", fmt.Sprintf("%d projects, the database is sound", len(list)), err
}
