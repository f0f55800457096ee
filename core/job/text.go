package job

// Str is an answer's text; "" where there is none.
func Str(p *string) string {
	if p == nil {
		return ""
	}
	return *p
}
