package svgtest

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
)

// Sets are icon sets among the page's development dependencies.
var Sets = []string{"bootstrap-icons/icons", "@mdi/svg/svg", "heroicons/24/*", "flag-icons/flags/1x1"}

// Files are so many files of each set, evenly among all of it, by their names. modules is the folder of the page's dependencies.
func Files(modules string, each int) (files map[string]string, err error) {
	files = map[string]string{}
	for _, set := range Sets {
		list, err := filepath.Glob(filepath.Join(modules, set, "*.svg"))
		if err != nil || len(list) < each {
			return nil, fmt.Errorf("%s has %d files, not %d: %w", set, len(list), each, err)
		}
		for i := range each {
			name := list[i*len(list)/each]
			raw, err := os.ReadFile(name)
			if err != nil {
				return nil, err
			}
			files[strings.TrimPrefix(filepath.ToSlash(name), filepath.ToSlash(modules)+"/")] = string(raw)
		}
	}
	return files, nil
}
