package job

func Str(p *string) string {
	if p == nil {
		return ""
	}
	return *p
}
