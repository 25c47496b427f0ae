/// The code that the calls of every contract share.
public enum Wire {}
