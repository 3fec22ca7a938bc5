package naming

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestFiguresArePartedAtTheirThousands(t *testing.T) {
	for n, want := range map[int]string{
		0: "0", 7: "7", 999: "999", 1000: "1,000", 12345: "12,345", 999999: "999,999", 1234567: "1,234,567", -999: "-999", -1000: "-1,000",
	} {
		require.Equal(t, want, Figure(n))
	}
}
