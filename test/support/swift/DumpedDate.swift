import Foundation

extension Foundation.Date: Dumped {
  var dumped: Wire.JSON { ["$instant": Wire.writeDate(self)] }
}
