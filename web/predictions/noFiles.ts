// The kernels' glue asks for the file system and for modules when it runs under Node. In a browser it never gets so far.
export {}
