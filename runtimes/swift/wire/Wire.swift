/// What the calls of every contract share.
public enum Wire {}
