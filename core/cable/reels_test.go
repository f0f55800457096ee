package cable_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"epitrope/core/cable"
)

func TestReels(t *testing.T) {
	for _, c := range []struct {
		stocked string
		system  cable.System
		want    string
	}{
		{"", cable.AWG, "16 AWG, 14 AWG, 12 AWG, 10 AWG, 8 AWG, 6 AWG, 4 AWG, 2 AWG, 1 AWG, 1/0 AWG, 2/0 AWG, 3/0 AWG, 4/0 AWG"},
		{"35 mm², 6 mm²; 16mm2", cable.Metric, "6 mm², 16 mm², 35 mm², 50 mm², 70 mm², 95 mm², 120 mm²"}, // thicker: bought
		{"8 mm auto, 2/0 AWG,", cable.Auto, "8 mm auto, 2/0 AWG, 3/0 AWG, 4/0 AWG"},
		{"120 mm²", cable.Metric, "120 mm²"},
	} {
		stocked, err := cable.ParseList(c.stocked)
		require.NoError(t, err)
		require.Equal(t, c.want, cable.Labels(cable.Reels(stocked, c.system)), c.stocked)
	}
	for text, wrong := range map[string]string{
		"16 mm², 8 mm": "it could be copper area or outside diameter", "2 x 16 mm²": "a reel holds one cable", "2,5 mm²": "\"2\"",
	} {
		_, err := cable.ParseList(text)
		require.ErrorContains(t, err, wrong, text)
	}
}
