"""General statics: beams, groups of fasteners against a bearing face. Knows no shelf."""
