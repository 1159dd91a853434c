package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"strings"

	"github.com/spf13/cobra"
	"github.com/spf13/pflag"
)

// settle gives every flag of a command that was not typed the value of the environment (CAPSTAN_DATA for --data), or else that of
// the file of settings, or else leaves its default. The file is JSON: {"data": "…", "quota": "20 GB"}; it is the one that --config
// or CAPSTAN_CONFIG name, or capstan.json where Capstan is started.
func settle(c *cobra.Command) error {
	file, named := "capstan.json", false
	if v := os.Getenv("CAPSTAN_CONFIG"); v != "" {
		file, named = v, true
	}
	if f := c.Flags().Lookup("config"); f != nil && f.Changed {
		file, named = f.Value.String(), true
	}
	written := map[string]any{}
	raw, err := os.ReadFile(file)
	if err == nil {
		if err := json.Unmarshal(raw, &written); err != nil {
			return fmt.Errorf("the settings in %s cannot be read (%w). Capstan was not started. Correct them, or take the file away", file, err)
		}
	} else if named || !errors.Is(err, fs.ErrNotExist) {
		return fmt.Errorf("the settings in %s cannot be read (%w). Capstan was not started. Name another file", file, err)
	}
	for name := range written {
		if !known(c.Root(), name) {
			return fmt.Errorf("%s has a setting %q that Capstan does not know. Capstan was not started. Take it out of the file", file, name)
		}
	}
	var wrong error
	c.Flags().VisitAll(func(f *pflag.Flag) {
		if f.Changed {
			return
		}
		from, value := "", ""
		if v, ok := os.LookupEnv(variable(f.Name)); ok {
			from, value = variable(f.Name), v
		} else if v, ok := written[f.Name]; ok {
			from, value = file, fmt.Sprint(v)
		} else {
			return
		}
		if err := c.Flags().Set(f.Name, value); err != nil {
			wrong = errors.Join(wrong, fmt.Errorf("%s says %q for %s, which does not fit (%w). Capstan was not started. Correct it there", from, value, f.Name, err))
		}
	})
	return wrong
}

func variable(flag string) string {
	return "CAPSTAN_" + strings.ToUpper(strings.ReplaceAll(flag, "-", "_"))
}

// known tells whether any command has such a flag: one file serves all of them.
func known(root *cobra.Command, name string) bool {
	for _, c := range root.Commands() {
		if c.Flags().Lookup(name) != nil {
			return true
		}
	}
	return false
}

// byteSize is a flag in bytes that is typed as people do: 500 MB, 10 GB, 1.5GiB.
type byteSize int64

func (b *byteSize) String() string { return fmt.Sprintf("%.3g GB", float64(*b)/1e9) }

func (b *byteSize) Type() string { return "size" }

func (b *byteSize) Set(s string) error {
	var n float64
	var unit string
	if k, _ := fmt.Sscanf(strings.TrimSpace(s), "%g%s", &n, &unit); k == 0 {
		return fmt.Errorf("%q is no size; type it like 20 GB", s)
	}
	factor, ok := map[string]float64{
		"": 1, "b": 1, "kb": 1e3, "mb": 1e6, "gb": 1e9, "tb": 1e12, "kib": 1 << 10, "mib": 1 << 20, "gib": 1 << 30, "tib": 1 << 40,
	}[strings.ToLower(unit)]
	if !ok || !(n > 0) || n*factor > 1e18 {
		return fmt.Errorf("%q is no size; type it like 20 GB", s)
	}
	*b = byteSize(n * factor)
	return nil
}
