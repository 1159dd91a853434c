package export

import (
	"testing"

	"capstan/core/delivery"
)

// Each format that can be planned can be made.
func TestEachFormatHasItsEncoder(t *testing.T) {
	for name := range delivery.Formats {
		if encoders[name] == nil {
			t.Errorf("nothing makes %s", name)
		}
	}
	if len(encoders) != len(delivery.Formats) {
		t.Errorf("%d encoders for %d formats", len(encoders), len(delivery.Formats))
	}
}
