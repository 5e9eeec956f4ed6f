package server

import (
	"bytes"
	"os"
	"strconv"
	"strings"
)

// The program keeps to a quarter of what the machine has, within these bounds, bytes: near to it memory is
// collected as often as that takes.
const (
	leastMemory = 512 << 20
	mostMemory  = 3 << 30
)

// memoryLimit is what the program keeps to on a machine with so many bytes; 0 is not known.
func memoryLimit(has int64) int64 {
	if has <= 0 {
		return mostMemory / 2
	}
	return min(max(has/4, leastMemory), mostMemory)
}

// memory is how many bytes this machine has, or the control group that the program runs in; 0 where that is
// not told.
func memory() int64 {
	has := int64(0)
	if raw, err := os.ReadFile("/proc/meminfo"); err == nil {
		for line := range bytes.Lines(raw) {
			if f := strings.Fields(string(line)); len(f) > 1 && f[0] == "MemTotal:" {
				kb, _ := strconv.ParseInt(f[1], 10, 64) // 0 is not known
				has = kb << 10
			}
		}
	}
	if raw, err := os.ReadFile("/sys/fs/cgroup/memory.max"); err == nil {
		if most, err := strconv.ParseInt(strings.TrimSpace(string(raw)), 10, 64); err == nil && (has == 0 || most < has) {
			has = most
		}
	}
	return has
}
