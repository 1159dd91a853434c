package main

import (
	"bytes"
	"context"
	"fmt"
	"os"
	"path/filepath"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/demo"
	"capstan/studio/export"
	"capstan/studio/media"
)

// measureSounds holds an export of the opener with what is heard, brought to a loudness, against the same without, at 1080p.
func measureSounds(dir string) error {
	folder := filepath.Join(dir, "media")
	if err := os.MkdirAll(folder, 0o755); err != nil {
		return err
	}
	taken, facts := map[string]string{}, map[string]*doc.Media{}
	for what, r := range demo.Recordings {
		hash, m, err := media.NewFolder(folder).TakeSound(context.Background(), bytes.NewReader(r.Data()), r.Name)
		if err != nil {
			return err
		}
		taken[what], facts[what] = hash, m
	}
	c, err := compile(folder, func(sky string, m *doc.Media) *doc.Project {
		p := demo.Sounded(demo.Opener(sky, m), taken, facts, nil)
		p.Film.Mix = &doc.Mix{Back: 12, Down: 300, Up: 800, Loudness: -14}
		return p
	})
	if err != nil {
		return err
	}
	var with, without []float64
	for range rounds {
		for _, silent := range []bool{true, false} {
			t, err := timed(func() error {
				return c.export(export.Options{Format: delivery.MP4, Width: 1920, Height: 1080, RateNum: 30, RateDen: 1, Silent: silent}, filepath.Join(dir, "file.mp4"))
			})
			if err != nil {
				return err
			}
			if silent {
				without = append(without, t)
			} else {
				with = append(with, t)
			}
		}
	}
	line("export of MP4 with sound / without", median(with)/median(without), 1.05)
	fmt.Printf("  %.2f s, without %.2f s\n", median(with), median(without))
	return nil
}
